// A small piece of a layer's material, to be told from others in a list.
import type { Layer } from '@/api/types';

import { boardPattern, wrapPattern } from './band';
import type { Band, Pattern } from './band';

function patternOf({ make, material }: Layer): Pattern {
  switch (make.kind) {
    case 'contact_sheet':
    case 'interleaves':
      return 'contact';
    case 'wrap':
      return wrapPattern(material);
    case 'skirt':
      return wrapPattern(material);
    case 'paper_rolls':
    case 'edge_fill':
      return 'fill';
    case 'enclosures':
    case 'outer_paper':
      return 'contact';
    case 'stretch_film':
    case 'sealed_bag':
      return 'film';
    case 'laid_together':
      return 'card';
    case 'face_pads':
    case 'edge_pads':
    case 'corner_blocks':
    case 'back_fill':
    case 'lining':
      return 'foam';
    case 'padding_sheets':
      return /bubble/.test(material) ? 'bubble' : boardPattern(material);
    case 'roll':
    case 'glass_tape':
    case 'marks':
      return 'tape';
    default:
      return boardPattern(material);
  }
}

/** Returns the swatch of a layer, 40 wide and 22 high. */
export function swatchOf(layer: Layer): Band {
  const pattern = patternOf(layer);
  const thin = pattern === 'contact' || pattern === 'film';
  return {
    x: 1,
    y: thin ? 9 : 2,
    width: 38,
    height: thin ? 4 : 18,
    pattern,
    outward: 'up',
    turns: thin ? 1 : 2,
  };
}
