// The stops of the work line, in the order of the work: the one place that names them.
export const STOPS = [
  { name: 'measure', title: 'Measure', key: '1' },
  { name: 'guard', title: 'Guard', key: '2' },
  { name: 'box', title: 'Box', key: '3' },
  { name: 'price', title: 'Price', key: '4' },
  { name: 'pack', title: 'Pack', key: '5' },
  { name: 'weigh', title: 'Weigh', key: '6' },
  { name: 'send', title: 'Send', key: '7' },
  { name: 'after', title: 'After', key: '8' },
] as const;

export type StopName = (typeof STOPS)[number]['name'];
