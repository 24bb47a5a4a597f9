// What is done to a carton that the studio has, in words.
import type { MakeOf } from '@/api/types';
import type { useUnits } from '@/units/useUnits';

type Units = ReturnType<typeof useUnits>;

/** How it is cut down, or what is added to it, one sentence after the other. */
export function savedWords({ cut, shorter, sleeve, second }: MakeOf<'saved_box'>, units: Units): string {
  if (second) return joinedWords({ cut, second }, units);
  if (sleeve) {
    const size = units.size(sleeve.width_mm, sleeve.height_mm);
    return `Cut its upper flaps off, push in a sleeve cut to ${size}, and tape both.`;
  }
  const done: string[] = [];
  if (cut)
    done.push(
      `Score it ${units.length(cut.below_mm)} below its upper scores. Lengthen the slots down to them. Trim the flaps to ${units.length(cut.flap_mm)}.`,
    );
  if (shorter) {
    const out =
      shorter.take_out_mm > 0
        ? `Cut it round twice, ${units.length(shorter.take_out_mm)} apart, and take that out.`
        : 'Cut it round once.';
    const joint = shorter.patch_mm
      ? `Butt the halves, and tape a patch ${units.length(shorter.patch_mm)} wide around the joint.`
      : `Slit the four edges of one half ${units.length(shorter.tongue_mm ?? 0)} back. Trim each tongue ${units.length(shorter.trim_mm ?? 0)} at both sides. Push the tongues into the other half, and tape all round.`;
    done.push(out, joint);
  }
  return done.length > 0 ? done.join(' ') : 'It goes as it is; what it has over is filled.';
}

type Joined = Pick<MakeOf<'saved_box'>, 'cut'> & { second: NonNullable<MakeOf<'saved_box'>['second']> };

/** How two are pushed into each other, one sentence after the other. */
function joinedWords({ cut, second }: Joined, units: Units): string {
  const { join } = second;
  const [outer, inner] = join.second_outside ? ['second', 'first'] : ['first', 'second'];
  const score = (which: string, of: typeof cut) =>
    of
      ? [
          `Score the ${which} ${units.length(of.below_mm)} below its upper scores. Lengthen the slots down to them. Trim the flaps to ${units.length(of.flap_mm)}.`,
        ]
      : [];
  const off =
    join.take_off_mm > 0
      ? ` Take ${units.length(join.take_off_mm)} more off the open end of the ${inner}.`
      : '';
  const push = join.tongue_mm
    ? `Slit the four edges of the ${inner} ${units.length(join.tongue_mm)} back from its open end. Trim each tongue ${units.length(join.trim_mm ?? 0)} at both sides. Push the tongues into the ${outer}.`
    : `Push the ${inner} into the ${outer}.`;
  return [
    ...score('first', cut),
    ...score('second', second.cut),
    `Cut one short end off each carton, at the crease.${off}`,
    push,
    `They lap ${units.length(join.lap_mm)}: it is ${units.length(join.inside_mm[0] ?? 0)} long inside. Tape all round both edges of the lap.`,
  ].join(' ');
}
