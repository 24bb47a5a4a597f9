import { describe, expect, it } from 'vitest';

import { decoded, encodingOf, telling } from './decoded';

const TEXT = 'Bestellnummer;Empfänger\n1042;Jürgen Größe\n';
const wide = (text: string, little: boolean) =>
  Uint8Array.from(
    [...text].flatMap((one) => {
      const [low, high] = [one.charCodeAt(0) & 0xff, one.charCodeAt(0) >> 8];
      return little ? [low, high] : [high, low];
    }),
  );

describe('the text of a file', () => {
  it.each([
    ['utf-8', new TextEncoder().encode(TEXT)],
    ['utf-8', Uint8Array.from([0xef, 0xbb, 0xbf, ...new TextEncoder().encode(TEXT)])],
    ['utf-16le', wide(`\ufeff${TEXT}`, true)],
    ['utf-16be', wide(`\ufeff${TEXT}`, false)],
    // Without a mark.
    ['utf-16le', wide(TEXT, true)],
    ['utf-16be', wide(TEXT, false)],
    // All its letters are among the first 256, which Windows-1252 writes as one byte each.
    ['windows-1252', Uint8Array.from([...TEXT].map((one) => one.charCodeAt(0)))],
  ] as const)('is read as it was written: %s', (encoding, bytes) => {
    expect(encodingOf(bytes)).toBe(encoding);
    expect(decoded(bytes, encoding)).toBe(TEXT);
  });

  it('is UTF-8 where nothing speaks against it', () => {
    expect(encodingOf(new Uint8Array())).toBe('utf-8');
    expect(encodingOf(new TextEncoder().encode('Order,Name'))).toBe('utf-8');
  });

  it('is told by a word that other encodings write otherwise', () => {
    expect(telling(TEXT)).toBe('Empfänger');
    expect(telling('Order,Name')).toBeUndefined();
  });
});
