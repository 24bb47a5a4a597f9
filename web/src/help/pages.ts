// A short page of help for each stop and place, by the name of its route: five sentences each.

/** The pictures that a page of help can show. */
export type HelpPicture =
  'piece' | 'layers' | 'box' | 'price' | 'step' | 'scale' | 'label' | 'calendar' | 'shelf' | 'roll' | 'rules';

interface HelpPage {
  title: string;
  picture: HelpPicture;
  says: readonly [string, string, string, string, string];
}

const SHORT: HelpPage = {
  title: 'A parcel on one page',
  picture: 'piece',
  says: [
    'Type what the piece is, its size, its value and where it goes.',
    'The plan, its box and its best price are worked out while you type.',
    'Change a layer or the box here. Press a stop above for all its details.',
    'Print the pack sheet for the bench, or start packing on this screen.',
    'Everything you type is saved automatically.',
  ],
};

const MATERIALS: HelpPage = {
  title: 'Materials',
  picture: 'roll',
  says: [
    'Plans use these materials. Each has its price and the sizes you buy.',
    'A material without a price makes every plan that uses it incomplete.',
    'Count your materials under In stock, and a plan says when something is short.',
    'Offcuts and saved cartons have pages of their own, and plans use them first.',
    'Import or export each class as a CSV table.',
  ],
};

const TOOLS: HelpPage = {
  title: 'Tools',
  picture: 'rules',
  says: [
    'Each tool answers one question without a parcel.',
    'Quick sums calculate a pocket, a wrap, a box or a billable weight.',
    'The price estimate gives a range before the piece is measured.',
    'Cutting lays the blanks of several parcels out on your sheets.',
    'Print a measuring sheet for the person who holds the tape.',
  ],
};

export const HELP: Partial<Record<string, HelpPage>> = {
  measure: {
    title: 'Measure',
    picture: 'piece',
    says: [
      'Measure the whole piece to its outermost points: frame, hangers and hooks included.',
      'Type a size as you read it: 24 1/2 in, 62.5 cm or 625.',
      'Give medium and date of completion: the surface decides which materials may touch it.',
      'Add the buyer and the value: they decide the route, the cover and the price.',
      'Add more pieces at the top if they travel in the same parcel.',
    ],
  },
  guard: {
    title: 'Guard',
    picture: 'layers',
    says: [
      'The layers are listed from the art outward, and drawn to scale beside the list.',
      'Open a layer to see why it is there and what could take its place.',
      'The odds say how likely damage is, compared with the usual pack.',
      'Suggested changes show what each one saves or costs before you apply it.',
      'Undo takes back any change.',
    ],
  },
  box: {
    title: 'Box',
    picture: 'box',
    says: [
      'Choose the box style, or use a carton that you have or can buy.',
      'The drawing is the blank, seen from outside, with every score and cut.',
      'Inside, outside and blank sizes stand beside it in your own unit.',
      'Print the cut list, or save the drawing as DXF or SVG.',
      'After cutting, type the size you really got, and the plan follows it.',
    ],
  },
  price: {
    title: 'Price',
    picture: 'price',
    says: [
      'Every service that takes the parcel is priced by its billable weight, surcharges included.',
      'Open a service to see how its price is made up.',
      'The ladder shows the next price bands, and changes that would reach them.',
      'Type a quotation if a carrier gave you a price of its own.',
      'The service you choose here is the one you book at Send.',
    ],
  },
  pack: {
    title: 'Pack',
    picture: 'step',
    says: [
      'One step at a time fills the screen, with the sizes for your hands.',
      'Press the space bar, a pedal or the large button when a step is done.',
      'The list of steps takes you back to any of them.',
      'Each tick takes its materials from stock.',
      'Photographs taken here are kept with the step and printed in a claim.',
    ],
  },
  weigh: {
    title: 'Weigh',
    picture: 'scale',
    says: [
      'Put the parcel on the scale, or type its weight and outside size.',
      'The reading is compared with the weight that was planned.',
      'A difference outside the range may mean a missing layer or a wrong material.',
      'Prices follow the reading from now on.',
      'A reading stays until you change the pack or the box.',
    ],
  },
  send: {
    title: 'Send',
    picture: 'label',
    says: [
      'Check both addresses against the order before you book.',
      'Book the service, or type the tracking number from the counter.',
      'Print the label and the papers, and tick the ones you confirm.',
      'Press Handed over once the carrier has the parcel.',
      'From then on its plan and its price stay as they are.',
    ],
  },
  after: {
    title: 'After',
    picture: 'calendar',
    says: [
      'Say how the parcel arrived: each answer improves the odds of the next ones.',
      'Type what the carrier charged and how long packing took, and estimates follow.',
      'For damage or loss, the claim collects photographs, papers and the value in one file.',
      'Deadlines for a claim stand here and in the calendar file.',
      'A lesson you write down is shown at the next piece like it.',
    ],
  },
  short: SHORT,
  bench: {
    title: 'Bench',
    picture: 'shelf',
    says: [
      'Each row is a parcel you are working on, the most urgent first.',
      'The note on a row says what it still needs.',
      'Search by title, buyer or number with the / key.',
      'Tick several rows to print, cut or archive them together.',
      'New parcel begins one on a single page.',
    ],
  },
  materials: MATERIALS,
  'in-stock': MATERIALS,
  carriers: {
    title: 'Carriers',
    picture: 'price',
    says: [
      'A carrier is a price list: services, zones, weight steps and surcharges.',
      'Copy your own prices from the carrier’s table, or import them as CSV.',
      'Try a parcel at the side to check a price against the carrier’s own calculator.',
      'A price list can have a first and a last day. Hummock reports an old one.',
      'Carriers with a service of their own can book, track and cancel.',
    ],
  },
  log: {
    title: 'Log',
    picture: 'calendar',
    says: [
      'Every parcel that left is here, with what it cost and how it arrived.',
      'Filter by outcome, kind, route or carrier to see where damage happens.',
      'The reckoning compares planned weights, minutes and costs with real ones.',
      'Open a row to say how a parcel arrived.',
      'Export the list as CSV for your books.',
    ],
  },
  leaving: {
    title: 'Outgoing',
    picture: 'label',
    says: [
      'This is the list for one day: booked parcels and those you take to the counter.',
      'Print all labels, or one hand-over list to be signed.',
      'A parcel that is not ready says why.',
      'When the driver has been, one press hands over all the parcels of a carrier.',
      'Choose another day at the top.',
    ],
  },
  rules: {
    title: 'House rules',
    picture: 'rules',
    says: [
      'House rules are how your studio packs: they apply to every new plan.',
      'Each question has a few answers, with the reason for each.',
      'Numbers can be found by searching for their name.',
      'Before a change is applied, you see which parcels it would change.',
      'Keep a set of rules as a preset and choose it for a single parcel.',
    ],
  },
  tools: TOOLS,
  sums: TOOLS,
};
