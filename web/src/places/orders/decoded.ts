// The text of a file in any of the usual encodings.

export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

export const ENCODINGS: Record<Encoding, string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16',
  'utf-16be': 'UTF-16, the other way round',
  'windows-1252': 'Windows-1252',
};

/** Returns how a file was written: by its mark, else as UTF-8 where it can be read so, else by its empty bytes. */
export function encodingOf(bytes: Uint8Array): Encoding {
  const [first, second, third] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  if (first === 0xef && second === 0xbb && third === 0xbf) return 'utf-8';
  // Of two bytes that write a Latin letter one is empty; a text of single bytes has no empty one.
  const empty = [0, 1].map((side) => bytes.filter((byte, at) => byte === 0 && at % 2 === side).length);
  if (Math.max(...empty) > bytes.length / 8)
    return (empty[1] ?? 0) > (empty[0] ?? 0) ? 'utf-16le' : 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

export const decoded = (bytes: Uint8Array, encoding: Encoding): string =>
  new TextDecoder(encoding).decode(bytes);

/** Returns the first word of a text with a letter that encodings write each in its own way. */
export function telling(text: string): string | undefined {
  return /[^\s;,\t"]*[^\u0000-\u007f][^\s;,\t"]*/u.exec(text)?.[0];
}
