import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

/** Where what the screens say is written. */
const FOLDERS = [
  'src/features',
  'src/presentation',
  'src/ui',
  'src/core/findings',
  'src/core/drills/rules',
  'src/core/plan',
];

function* filesUnder(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const place = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(place);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\./.test(entry.name)) yield place;
  }
}

/** What a file says: text between tags, and strings with a space in them. */
function textsIn(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      found.push(node.text.replace(/\s+/g, ' ').trim());
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Everything the interface says, piece by piece. */
export const interfaceTexts = (): string[] =>
  FOLDERS.flatMap((folder) => [...filesUnder(folder)]).flatMap(textsIn);

/** Its whole sentences of four words and more. */
export const interfaceSentences = (): string[] =>
  interfaceTexts().flatMap((text) =>
    [...text.matchAll(/[A-Z][^.?!]*[.?!]/g)]
      .map(([sentence]) => sentence)
      .filter((one) => one.split(' ').length >= 4),
  );
