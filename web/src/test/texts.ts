// Every text of the pages, for the check of its English: what is put in at run time stands as X.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

import ts from 'typescript';
import { parse } from 'vue/compiler-sfc';

export interface Text {
  file: string;
  says: string;
}

/** Attributes that somebody reads or hears. */
const SPOKEN = new Set([
  'aria-label',
  'title',
  'placeholder',
  'label',
  'says',
  'called',
  'alt',
  'empty',
  'text',
]);
/** Elements within a sentence: whatever else stands between two texts parts them. */
const INLINE = new Set([
  'a',
  'b',
  'code',
  'em',
  'kbd',
  'small',
  'span',
  'strong',
  'RouterLink',
  'SumOf',
  'template',
]);

/** As far as a template is looked at here. */
interface Node {
  type: number;
  tag?: string;
  content?: string | { content?: string };
  children?: Node[];
  props?: { type: number; name: string; value?: { content: string } }[];
}
const [ELEMENT, TEXT, INTERPOLATION, ATTRIBUTE] = [1, 2, 5, 6];

const plain = (text: string) => text.replaceAll(/\s+/g, ' ').trim();

function ofTemplate(node: Node): string[] {
  const texts: string[] = [];
  let run = '';
  const end = () => {
    if (/[a-z]{2}/i.test(run.replaceAll('X', ''))) texts.push(plain(run));
    run = '';
  };
  const walk = (within: Node) => {
    for (const child of within.children ?? []) {
      if (child.type === TEXT && typeof child.content === 'string') run += child.content;
      else if (child.type === INTERPOLATION) run += 'X';
      else if (child.type === ELEMENT) {
        for (const prop of child.props ?? [])
          if (prop.type === ATTRIBUTE && SPOKEN.has(prop.name) && prop.value)
            texts.push(plain(prop.value.content));
        const inline = INLINE.has(child.tag ?? '');
        if (!inline) end();
        walk(child);
        if (!inline) end();
      }
    }
  };
  walk(node);
  end();
  return texts;
}

/** String literals that are sentences: they have a blank, and no sign of code. */
function ofScript(source: string): string[] {
  const texts: string[] = [];
  const keep = (text: string) => {
    if (
      /^[A-Z“‘a-z][^{}=<>_/|]* [^{}=<>_|]*$/.test(text) &&
      !/^[a-z-]+( [a-z-]+)*$|^(M|m)?[\d .-]+/.test(text)
    )
      texts.push(plain(text));
  };
  const walk = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) keep(node.text);
    else if (ts.isTemplateExpression(node))
      keep([node.head.text, ...node.templateSpans.map(({ literal }) => `X${literal.text}`)].join(''));
    ts.forEachChild(node, walk);
  };
  walk(ts.createSourceFile('it.ts', source, ts.ScriptTarget.Latest));
  return texts;
}

function textsOf(file: string): Text[] {
  const source = readFileSync(file, 'utf8');
  const says = file.endsWith('.vue')
    ? (({ descriptor }) => [
        ...(descriptor.template?.ast ? ofTemplate(descriptor.template.ast as unknown as Node) : []),
        ...ofScript(`${descriptor.script?.content ?? ''}\n${descriptor.scriptSetup?.content ?? ''}`),
      ])(parse(source))
    : ofScript(source);
  return says.map((one) => ({ file, says: one }));
}

/** Returns every text of the pages under a folder; tests and the types of the API are left out. */
export function allTexts(folder: string): Text[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(vue|ts)$/.test(file) && !/\.test\.ts$|^test\/|schema\.d\.ts$/.test(file))
    .sort()
    .flatMap((file) => textsOf(join(folder, file)))
    .map(({ file, says }) => ({ file: file.slice(folder.length), says }));
}
