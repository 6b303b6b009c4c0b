import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import ts from 'typescript';
import { drawRooms } from '../../scripts/architecture.mjs';
import { mayShip, noticesPage, productionPackages } from '../../scripts/notices.mjs';

const tracked = (...where: string[]): string[] =>
  execFileSync('git', ['ls-files', ...where], { encoding: 'utf8' })
    .split('\n')
    .filter(Boolean);
const sources = tracked('src', 'bin', 'scripts').filter((file) => /\.(ts|tsx|mjs)$/.test(file));
const code = sources.filter((file) => !/\.test\./.test(file));

test('an exported type name is defined once', () => {
  const places = new Map<string, string[]>();
  for (const file of code.filter((one) => one.startsWith('src/'))) {
    const parsed = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.ES2022);
    for (const statement of parsed.statements) {
      const isType =
        ts.isTypeAliasDeclaration(statement) ||
        ts.isInterfaceDeclaration(statement) ||
        ts.isClassDeclaration(statement);
      const isExported =
        isType && statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword);
      if (!isExported || !statement.name || statement.name.text === 'Props') continue;
      places.set(statement.name.text, [...(places.get(statement.name.text) ?? []), file]);
    }
  }
  expect([...places].filter(([, files]) => files.length > 1)).toEqual([]);
});

test('the picture of the rooms is the one their imports draw', () => {
  expect(readFileSync('docs/architecture.svg', 'utf8')).toBe(drawRooms());
});

test('what ships is listed with its licence, and may ship', () => {
  expect(readFileSync('THIRD-PARTY-NOTICES.md', 'utf8')).toBe(noticesPage());
  expect(productionPackages().filter(({ license }) => !mayShip(license))).toEqual([]);
});

/** Rows of fitted numbers. */
const DATA = /(classifier|secondLook)Weights\.ts$/;

test('at most one line in a hundred is longer than 120 characters', () => {
  const lines = code
    .filter((file) => !DATA.test(file))
    .flatMap((file) => readFileSync(file, 'utf8').split('\n'));
  expect(lines.filter((line) => line.length > 120).length / lines.length).toBeLessThanOrEqual(0.01);
});

/** Files that may be longer, and why. */
const LONGER: Readonly<Record<string, string>> = {
  'src/audio/takeSession.ts': 'one take from the count-in to its end: its steps share one state',
  'src/audio/playback/takePlayer.ts': 'one player: pieces, seams and levels belong to one clock',
  'src/core/drills/catalogue.ts': 'a table of drills',
};

test('no file is over 300 lines but those that say why', () => {
  const long = code.filter((file) => readFileSync(file, 'utf8').split('\n').length > 301);
  expect(long.filter((file) => !(file in LONGER))).toEqual([]);
  expect(Object.keys(LONGER).length).toBeLessThanOrEqual(5);
});

test('production code imports only what package.json lists among its dependencies, and all of that is imported', () => {
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
    dependencies: Record<string, string>;
  };
  const shipped = tracked('src', 'bin').filter(
    (file) => /\.(ts|tsx|css)$/.test(file) && !/\.test\./.test(file),
  );
  const imported = new Set<string>();
  for (const file of shipped) {
    const text = readFileSync(file, 'utf8');
    const specs = file.endsWith('.css')
      ? [...text.matchAll(/@import '([^']+)'/g)].map(([, spec]) => spec as string)
      : ts.preProcessFile(text).importedFiles.map(({ fileName }) => fileName);
    for (const spec of specs.filter((one) => !one.startsWith('.') && !one.startsWith('@/'))) {
      imported.add(
        spec
          .split('/')
          .slice(0, spec.startsWith('@') ? 2 : 1)
          .join('/'),
      );
    }
  }
  const outside = [...imported].filter((name) => !(name in dependencies) && !name.startsWith('node:'));
  // styles are made at build time
  expect(outside.filter((name) => name !== 'tailwindcss')).toEqual([]);
  // react-dom is what next renders with; the stretcher is copied to public, the Fourier transform into the core
  const elsewhere = ['react-dom', 'signalsmith-stretch', '@echogarden/pffft-wasm'];
  expect(
    Object.keys(dependencies).filter((name) => !imported.has(name) && !elsewhere.includes(name)),
  ).toEqual([]);
});
