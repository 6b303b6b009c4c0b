import { existsSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';

/** When a file changed last, in ms; 0 where there is none. */
export const changed = (place) => (existsSync(place) ? statSync(place).mtimeMs : 0);

/** The latest change at or below a place. */
export function newest(place) {
  if (!existsSync(place)) return 0;
  if (!statSync(place).isDirectory()) return changed(place);
  return readdirSync(place).reduce((latest, name) => Math.max(latest, newest(path.join(place, name))), 0);
}

const SOURCES = [
  'src',
  'drizzle',
  'next.config.ts',
  'postcss.config.mjs',
  'package-lock.json',
  'scripts/bundle.mjs',
];

/** Is the production build newer than everything it is made from? */
export const buildIsFresh = () => changed('.next/BUILD_ID') >= Math.max(...SOURCES.map(newest));
