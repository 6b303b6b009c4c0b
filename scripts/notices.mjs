// npm run notices: writes THIRD-PARTY-NOTICES.md from what ships: the production packages of
// package-lock.json, the fonts and the sounds.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const PERMISSIVE =
  /^(MIT|MIT-0|ISC|Apache-2\.0|BSD-2-Clause|BSD-3-Clause|0BSD|OFL-1\.1|CC0-1\.0|CC-BY-4\.0|Unlicense|Zlib|BlueOak-1\.0\.0|Python-2\.0|LGPL-3\.0-or-later)$/;

/** Production packages as `package-lock.json` names them: path, name, version, licence. */
export function productionPackages() {
  const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8'));
  return Object.entries(packages)
    .filter(([place, { dev, devOptional, optional }]) => place !== '' && !dev && !devOptional && !optional)
    .map(([place, { version, license }]) => ({
      place,
      name: place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length),
      version,
      license: license ?? 'unknown',
    }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'));
}

/** Is every licence of a choice or a sum one that may ship? */
export const mayShip = (license) =>
  license
    .replace(/[()]/g, '')
    .split(/ (?:AND|OR) /)
    .some((one) => PERMISSIVE.test(one));

function licenceText(place) {
  if (!existsSync(place)) return null;
  const file = readdirSync(place).find((name) => /^(licen[cs]e|copying)/i.test(name));
  return file ? readFileSync(path.join(place, file), 'utf8').trim() : null;
}

/** The page: a table, then each licence text once with the packages that carry it. */
export function noticesPage() {
  const packages = productionPackages();
  const texts = new Map();
  for (const { place, name } of packages) {
    const text = licenceText(place);
    if (text) texts.set(text, [...(texts.get(text) ?? []), name]);
  }
  const table = packages.map(({ name, version, license }) => `| ${name} | ${version} | ${license} |`);
  const parts = [...texts].map(([text, names]) => `### ${names.join(', ')}\n\n\`\`\`text\n${text}\n\`\`\``);
  const bank = readFileSync('public/band/LICENSE.md', 'utf8').trim();
  return `# Third-party notices

Idle Wander ships with the packages, fonts and sounds below. This page is written by \`npm run notices\`.

| package | version | licence |
| --- | --- | --- |
${table.join('\n')}

## Sounds

The instruments of the band come from FluidR3Mono.

\`\`\`text
${bank}
\`\`\`

## Licence texts

${parts.join('\n\n')}
`;
}

if (process.argv[1]?.endsWith('notices.mjs')) writeFileSync('THIRD-PARTY-NOTICES.md', noticesPage());
