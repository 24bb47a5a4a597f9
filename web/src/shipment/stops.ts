// The stops of the work line, in the order of the work: the one place that names them.
export const STOPS = [
  { name: 'measure', title: 'Measure' },
  { name: 'guard', title: 'Guard' },
  { name: 'box', title: 'Box' },
  { name: 'price', title: 'Price' },
] as const;

export type StopName = (typeof STOPS)[number]['name'];
