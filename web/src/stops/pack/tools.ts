import type { PackTool } from '@/api/types';

export const TOOLS: Record<PackTool, string> = {
  gloves: 'cotton gloves',
  knife: 'knife with a fresh blade',
  mat: 'cutting mat',
  steel_rule: 'steel rule',
  creaser: 'creaser',
  pencil: 'pencil and felt pen',
  tape_gun: 'tape gun',
};
