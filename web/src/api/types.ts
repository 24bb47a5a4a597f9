// Names for the shapes of the API, generated from its description.
import type { components } from './schema';

type Schemas = components['schemas'];

export type Inputs = Schemas['ShipmentInputs'];
export type Shipment = Schemas['ShipmentView'];
export type BenchRow = Schemas['BenchRow'];
export type Preview = Schemas['Preview'];
export type Worked = Schemas['Worked'];
export type Plan = Schemas['Plan'];
export type Layer = Schemas['Layer'];
export type Make = Schemas['Make'];
export type Addition = Schemas['Addition'];
export type Finding = Schemas['Finding'];
export type Summary = Schemas['Summary'];
export type WorkLine = Schemas['WorkLine'];
export type NextAct = Schemas['NextAct'];
export type Stop = Schemas['Stop'];
export type Mark = Schemas['Mark'];
export type Quote = Schemas['Quote'];
export type Offer = Schemas['Offer'];
export type Reason = Schemas['Reason'];
export type LineRule = Schemas['LineRule'];
export type Money = Schemas['Money'];
export type Studio = Schemas['StudioView'];
export type Blank = Schemas['Blank'];
export type LengthUnit = Schemas['LengthUnit'];
export type Problem = Schemas['Problem'];
export type SizeRead = Schemas['SizeRead'];
/** One kind of layer, with its own dimensions. */
export type MakeOf<Kind extends Make['kind']> = Extract<Make, { kind: Kind }>;
