import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { COMMANDS } from '../../bin/catalogue';

const read = (file: string): string => readFileSync(file, 'utf8');
const pages = [
  'README.md',
  ...readdirSync('docs')
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
];

test('every link of the documents leads somewhere', () => {
  for (const page of pages)
    for (const [, target] of read(page).matchAll(/\]\(([^)#]+)\)/g)) {
      if (/^https?:/.test(target!)) continue;
      expect([page, target, existsSync(path.join(path.dirname(page), target!))]).toEqual([
        page,
        target,
        true,
      ]);
    }
});

test('every file the documents name is there', () => {
  const files = execFileSync('git', ['ls-files'], { encoding: 'utf8' }).split('\n');
  for (const page of [...pages, 'CONTRIBUTING.md', 'SECURITY.md'])
    for (const [, name] of read(page).matchAll(/`([\w./-]+\.(?:tsx?|mjs|svg|json))`/g)) {
      // what is built, and what a player calls a file of their own
      if (/^dist\/|^(?:blues|profile|truth|attempt|take|notes|line)\./.test(name!)) continue;
      const isThere = files.some((file) => file === name || file.endsWith(`/${name}`));
      expect([page, name, isThere]).toEqual([page, name, true]);
    }
});

test('every picture is linked from the README, and there are under twenty', () => {
  const pictures = readdirSync('docs/screenshots');
  expect(pictures.length).toBeGreaterThan(5);
  expect(pictures.length).toBeLessThan(20);
  for (const picture of pictures)
    expect([picture, read('README.md').includes(`docs/screenshots/${picture}`)]).toEqual([picture, true]);
});

test('every npm command the documents name exists', () => {
  const { scripts } = JSON.parse(read('package.json')) as { scripts: Record<string, string> };
  for (const page of pages)
    for (const [, run, bare] of read(page).matchAll(/`npm (?:run ([\w:]+)|(test))/g))
      expect([page, run ?? bare, (run ?? bare)! in scripts]).toEqual([page, run ?? bare, true]);
});

test('every command of the command line is in its usage', () => {
  const files = readdirSync('bin/commands').filter(
    (name) => !['exit.ts', 'input.ts', 'kept.ts'].includes(name),
  );
  expect(Object.keys(COMMANDS).sort()).toEqual(files.map((file) => file.replace('.ts', '')).sort());
});

test('versions are pinned exactly', () => {
  const { dependencies, devDependencies } = JSON.parse(read('package.json')) as Record<
    string,
    Record<string, string>
  >;
  for (const [name, version] of Object.entries({ ...dependencies, ...devDependencies }))
    expect([name, /^\d+\.\d+\.\d+/.test(version)]).toEqual([name, true]);
});

test('what ships is under a permissive licence', () => {
  const { dependencies } = JSON.parse(read('package.json')) as { dependencies: Record<string, string> };
  for (const name of Object.keys(dependencies)) {
    const { license } = JSON.parse(read(`node_modules/${name}/package.json`)) as { license?: string };
    expect([name, /^(MIT|ISC|BSD|Apache|OFL|0BSD|Unlicense)/.test(license ?? '')]).toEqual([name, true]);
  }
});
