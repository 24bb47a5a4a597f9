// @vitest-environment node
// The English of the pages: no construction that reads as translated, and no sentence longer than a person takes in at a bench.
import { fileURLToPath } from 'node:url';

import { describe, expect, it } from 'vitest';

import { allTexts } from './texts';

const PAGES = fileURLToPath(new URL('../', import.meta.url));
const MOST_WORDS = 15;
const FOREIGN = [
  /\bthat of\b/i,
  /\bof which\b/i,
  /\bso much as\b/i,
  /\bis said to\b/i,
  /\bstands? against\b/i,
  /\blies? within\b/i,
  /\bgoes without\b/i,
  /\bwhose\b/i,
  /\bwhoever\b/i,
  /\bsomebody\b/i,
  /\bnobody’s\b/i,
  /\bwould do\b/i,
  /\bas it went\b/i,
  /\bby itself\b/i,
  /\bin all\b/i,
  /^(What|Whatever) (?!.*\?)/,
];

/** What is wrong with a text, sentence by sentence. */
function wrongIn(text: string): string[] {
  const sentences = text.split(/(?<=[.?!:;])\s+/);
  return sentences.flatMap((sentence) => {
    const words = sentence.split(/\s+/).filter((word) => /\p{L}{2}/u.test(word)).length;
    const found = FOREIGN.filter((construction) => construction.test(sentence));
    return [
      ...(words > MOST_WORDS ? [`${String(words)} words: ${sentence}`] : []),
      ...found.map((construction) => `${construction.source}: ${sentence}`),
    ];
  });
}

describe('the texts of the pages', () => {
  it('are found in templates, in attributes and in scripts', () => {
    const says = allTexts(PAGES).map((text) => text.says);
    expect(says.length).toBeGreaterThan(2000);
    for (const one of ['Shipping charge', 'Both addresses are right', 'Read both, letter by letter.'])
      expect(says).toContain(one);
  });

  it('are plain English', () => {
    const wrong = allTexts(PAGES).flatMap(({ file, says }) => wrongIn(says).map((one) => `${file} – ${one}`));
    expect(wrong).toEqual([]);
  });

  it('would be told where they are not', () => {
    expect(wrongIn('What it costs')).toHaveLength(1);
    expect(wrongIn('What does it cost?')).toEqual([]);
    expect(wrongIn('The board is taken to be that of the first.')).toHaveLength(1);
    expect(wrongIn(Array.from({ length: 16 }, () => 'word').join(' '))).toHaveLength(1);
    expect(wrongIn('Press it. Wait for it. Press again when the light is green.')).toEqual([]);
  });
});
