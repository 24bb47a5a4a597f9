// What a step is about: its layer in the plan, or among the own layers of one piece of several.
import type { Layer, PackStepView, Plan, StackPiece } from '@/api/types';
import { FIRST } from '@/shipment/usePiece';

/** The piece of several that a step is about. */
export function pieceOf(step: PackStepView, plan: Plan): StackPiece | undefined {
  if (!step.piece) return undefined;
  const key = /^piece\/([^/]+)\//.exec(step.key)?.[1] ?? FIRST;
  return plan.stack?.pieces.find((piece) => piece.key === key);
}

/** The layer that a step lays. */
export function layerOf(step: PackStepView, plan: Plan): Layer | undefined {
  const layers = pieceOf(step, plan)?.layers ?? plan.layers;
  return layers.find(({ slot }) => slot === step.layer);
}

/** What a step is called, with the piece that it is about where there are several. */
export const titleOf = (step: PackStepView) => (step.piece ? `${step.piece}: ${step.title}` : step.title);
