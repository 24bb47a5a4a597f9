import type { PackSign, PackTool } from '@/api/types';

export const TOOLS: Record<PackTool, string> = {
  gloves: 'cotton gloves',
  nitrile_gloves: 'nitrile gloves',
  knife: 'knife with a fresh blade',
  mat: 'cutting mat',
  steel_rule: 'steel rule',
  creaser: 'creaser',
  pencil: 'pencil and felt pen',
  tape_gun: 'tape gun',
  square: 'square',
  tape_measure: 'tape measure',
  scissors: 'scissors',
  saw: 'fine saw',
  brush: 'soft brush',
  hot_glue: 'hot glue',
  screwdriver: 'screwdriver',
  drill: 'drill with a depth stop',
  clamps: 'clamps',
};

/** What could hurt, as a word beside a small sign. */
export const SIGNS: Record<PackSign, string> = {
  knife: 'open blade',
  glass: 'glass',
  dust: 'dust',
  two_people: 'two people',
  film: 'plastic film',
  static: 'static',
};
