// What is said of a saved carton.
export const CONDITIONS = [
  { value: 'sound', text: 'Sound' },
  { value: 'crushed_corner', text: 'A corner is crushed' },
  { value: 'was_wet', text: 'It was wet' },
];
export const MARKINGS = [
  { value: 'plain', text: 'None' },
  { value: 'labels', text: 'Labels, to be covered' },
  { value: 'printed', text: 'Printed: turn it inside out' },
];
export const ORIGINS = [
  { value: 'delivery', text: 'A delivery to the studio' },
  { value: 'given', text: 'Gift' },
  { value: 'found', text: 'Found' },
];
