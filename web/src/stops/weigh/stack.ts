// The predicted masses of a parcel, one on the other, to scale; and where the scale stands beside them.
import type { Plan } from '@/api/types';
import { layerWords } from '@/words/layers';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

export interface Block {
  key: string;
  name: string;
  grams: number;
  doubt: number;
  /** From below, as shares of the drawing. */
  from: number;
  to: number;
  swatch: number;
}

export interface Stack {
  blocks: Block[];
  /** The plan’s sum and its doubt, as shares. */
  planned: { at: number; from: number; to: number };
  /** What was read, as a share; nothing while nothing was. */
  read?: number;
}

/** Thinner than this share, a part is drawn with its neighbours but not named. */
export const NAMED_FROM = 0.05;

export function stackOf(plan: Plan, units: Units, read?: number): Stack {
  const { mass_g: sum, plus_minus_g: doubt } = plan.tally.weight;
  const whole = Math.max(sum + doubt, read ?? 0) * 1.06;
  const parts = [
    {
      key: 'piece',
      name: 'The piece',
      grams: plan.piece_weight.mass_g,
      doubt: plan.piece_weight.plus_minus_g,
    },
    ...plan.layers.map((layer) => ({
      key: layer.slot,
      name: layerWords(layer, units).name,
      grams: layer.weight.mass_g,
      doubt: layer.weight.plus_minus_g,
    })),
  ];
  let below = 0;
  const blocks = parts.map((part, at) => {
    const from = below / whole;
    below += part.grams;
    return { ...part, from, to: below / whole, swatch: at % 3 };
  });
  return {
    blocks,
    planned: { at: sum / whole, from: (sum - doubt) / whole, to: (sum + doubt) / whole },
    read: read === undefined ? undefined : read / whole,
  };
}
