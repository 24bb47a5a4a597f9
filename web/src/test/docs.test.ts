// @vitest-environment node
// What the docs name is there: files by their path, and pages that they link to.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

import { describe, expect, it } from 'vitest';

const ROOT = fileURLToPath(new URL('../../../', import.meta.url));
const DOCS = [
  'README.md',
  'CONTRIBUTING.md',
  'SECURITY.md',
  ...readdirSync(join(ROOT, 'docs'))
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
];
/** A file of the project in a code span, by its path from the root. */
const PATH = /^(?:bin|crates|docs|web|demo|deploy|\.ci)\/[\w./-]+$/;

/** Returns what a document names that is not there. */
function missingIn(doc: string, text: string): string[] {
  const plain = text.replaceAll(/```[\s\S]*?```/g, '');
  const spans = [...plain.matchAll(/`([^`\n]+)`/g)].map(([, code = '']) => code.split(' ')[0] ?? '');
  const paths = spans.filter((path) => PATH.test(path)).map((path) => join(ROOT, path));
  const links = [...plain.matchAll(/\]\(([^)\s#]+)/g)]
    .map(([, link = '']) => link)
    .filter((link) => !link.includes(':'))
    .map((link) => join(ROOT, dirname(doc), link));
  return [...paths, ...links].filter((file) => !existsSync(file));
}

describe('docs', () => {
  it.each(DOCS)('%s names nothing that is gone', (doc) => {
    expect(missingIn(doc, readFileSync(join(ROOT, doc), 'utf8'))).toEqual([]);
  });

  it('a path that is gone is found, in a span and in a link', () => {
    const text = 'See `bin/gone --now` and [this](gone.md), `bin/start` and [that](backup.md).';
    const gone = missingIn('docs/tour.md', text).map((file) => file.slice(ROOT.length));
    expect(gone).toEqual(['bin/gone', 'docs/gone.md']);
  });
});
