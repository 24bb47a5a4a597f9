// The allowances in the order of the work, by what their keys begin or end with.
import type { Allowance } from '@/api/types';

const GROUPS: readonly { name: string; holds: RegExp }[] = [
  { name: 'Minutes', holds: /minutes(_per_m)?$/ },
  { name: 'How sure a weight is', holds: /doubt$/ },
  { name: 'Contact sheet and tape', holds: /^(contact|tape)_/ },
  { name: 'Glass and faces not to be touched', holds: /^(glass|spacer|rabbet)_/ },
  { name: 'Corners and boards', holds: /^(pocket|board_proud|board_tape|exact)/ },
  { name: 'Wraps', holds: /^(first_turns|second_turns|rolled_ends|wrap)/ },
  { name: 'Foam', holds: /^(pad|edge_pad|block|back_fill|bar)_/ },
  { name: 'Along the edges, linings and outer paper', holds: /^(lining|paper_roll|skirt|outer_paper|mark)_/ },
  { name: 'Loose sheets and rolls', holds: /^(folio|paper|roll|tube)_/ },
  { name: 'Mailers', holds: /^(mailer|posted)_/ },
  { name: 'Film and bags', holds: /^(film|bag)_/ },
  { name: 'Fit and fill', holds: /^(clearance|depth_clearance|snug|fill|second_gap)/ },
  { name: 'Box and sheets', holds: /^(box|seal|sheet|saw|offcut)_/ },
  { name: 'Engineer’s view', holds: /^(drop|press|stack)_/ },
  { name: 'Odds and what they are worth', holds: /^(accept|odds|labour|loss|least)_/ },
  { name: 'Limits', holds: /./ },
];

/** The allowances that the pages show: all but those that custom and physics settle, as long as nobody changed them. */
export function onPages(
  allowances: readonly Allowance[],
  values: Record<string, number | null>,
): Allowance[] {
  return allowances.filter(
    ({ key, on_pages, default: usual }) => on_pages || (values[key] ?? usual) !== usual,
  );
}

/** Returns the allowances by group, the minutes and doubts last. */
export function grouped(allowances: readonly Allowance[]): { name: string; allowances: Allowance[] }[] {
  const groups = GROUPS.map(({ name }) => ({ name, allowances: [] as Allowance[] }));
  for (const allowance of allowances) {
    const place = GROUPS.findIndex(({ holds }) => holds.test(allowance.key));
    groups[place]?.allowances.push(allowance);
  }
  const [minutes, doubts, ...others] = groups;
  return [...others, doubts, minutes].filter(
    (group) => group !== undefined && group.allowances.length > 0,
  ) as {
    name: string;
    allowances: Allowance[];
  }[];
}
