// Which part of a layer something is, whatever the words for it are.

interface Named {
  /** What left before parts had keys has them as their names. */
  part?: string;
  name: string;
}

/** The key of a part. */
export const keyOf = ({ part, name }: Named): string => part ?? name;

/** Whether a part is tape, which a step lists strip by strip. */
export const isTape = (part: Named): boolean => keyOf(part).split(' ')[0] === 'tape';
