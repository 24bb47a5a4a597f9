// The parts of a studio, the choices of its settings, and what each is called.
export const SECTIONS = [
  { key: 'name', name: 'Name and address' },
  { key: 'countries', name: 'Countries' },
  { key: 'money', name: 'Money and tax' },
  { key: 'ruler', name: 'Ruler, scale and day' },
  { key: 'papers', name: 'Label and card' },
  { key: 'tablets', name: 'Tablets' },
  { key: 'backup', name: 'Backup' },
] as const;
export type Section = (typeof SECTIONS)[number]['key'];
/** Those that are kept together as the settings. */
export const OF_SETTINGS: readonly Section[] = ['name', 'countries', 'money', 'ruler'];
export const PRICES = [
  { value: 'net', text: 'without tax' },
  { value: 'gross', text: 'with tax' },
] as const;
export const LENGTHS = [
  { value: 'mm', text: 'millimetres' },
  { value: 'cm', text: 'centimetres' },
  { value: 'in', text: 'inches' },
] as const;
export const FRACTIONS = [
  { value: '8', text: 'to 1/8 in' },
  { value: '16', text: 'to 1/16 in' },
  { value: '32', text: 'to 1/32 in' },
] as const;
export const MASSES = [
  { value: 'kg', text: 'kilograms' },
  { value: 'lb', text: 'pounds and ounces' },
] as const;
export const DECIMALS = [
  { value: 'point', text: '6.90' },
  { value: 'comma', text: '6,90' },
] as const;
export const NUMBERS = [
  { key: 'vat', label: 'VAT number' },
  { key: 'eori', label: 'EORI number' },
  { key: 'ioss', label: 'IOSS number' },
  { key: 'other', label: 'Another, with its name' },
] as const;
export const PAPERS = [
  { value: 'a4', text: 'A4' },
  { value: 'letter', text: 'Letter' },
] as const;
export const LABELS = [
  { value: '100x150', text: '100 × 150 mm' },
  { value: '4x6', text: '4 × 6 in' },
] as const;
export const DATES = [
  { value: 'dmy', text: '4 Mar 2027' },
  { value: 'mdy', text: 'Mar 4, 2027' },
  { value: 'ymd', text: '2027-03-04' },
] as const;
