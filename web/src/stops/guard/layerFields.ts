// The fields that a layer's controls hold, so that a refused value opens its layer.
import type { LayerSlot } from '@/api/types';

export const FIELDS: Partial<Record<LayerSlot, readonly string[]>> = {
  corners: ['choices.pocket_leg', 'choices.pocket_board', 'choices.slip_on_corner'],
  face_boards: ['choices.face_board', 'choices.board_proud', 'choices.back_board', 'choices.back_proud'],
  first_wrap: ['choices.first_turns', 'choices.cushion_wrap'],
  second_wrap: ['choices.second_turns'],
  face_pads: ['choices.pad_thickness', 'choices.pad_area_cm2', 'choices.pad_foam'],
  edge_pads: ['choices.edge_pad_thickness'],
  corner_blocks: ['choices.block_thickness', 'choices.block_leg'],
  fill: ['choices.clearance', 'choices.fill'],
  second_fill: ['choices.second_gap', 'choices.second_fill'],
  lining: ['choices.lining_thickness', 'choices.lining_sides', 'choices.lining_foam'],
  edges: ['choices.roll_paper', 'choices.spring_board'],
  padding_sheets: ['choices.padding_sheet', 'choices.depth_clearance'],
  outer_paper: ['choices.outer_paper'],
  marks: ['choices.label'],
  bundle: ['choices.set_grid'],
  roll: ['choices.roll_inner', 'choices.carriage'],
  contact: ['choices.contact_paper'],
  box: ['choices.box_board'],
};
