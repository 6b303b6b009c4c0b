// npm run architecture: draws docs/architecture.svg, the rooms of the house and what each imports, from the
// imports themselves.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const CORE = 'core/';
const OUTER = ['app', 'features', 'server', 'audio', 'workers', 'ui', 'presentation'];

/**
 * `core/music`, `features`, `bin`: the room a file of the repository belongs to; null where it belongs to
 * none.
 */
export function roomOf(file) {
  if (file.startsWith('bin/')) return 'bin';
  const [, top, room] = /^src\/([^/]+)\/([^/]+)/.exec(file) ?? [];
  if (top === 'core') return CORE + room;
  return OUTER.includes(top) ? top : null;
}

function importsOf(file) {
  const specs = [...readFileSync(file, 'utf8').matchAll(/(?:from|import\() ?'([^']+)'/g)].map(
    ([, spec]) => spec,
  );
  return specs.flatMap((spec) => {
    if (spec.startsWith('@/')) return [`src/${spec.slice(2)}/x`];
    return spec.startsWith('.') ? [`${path.posix.join(path.posix.dirname(file), spec)}/x`] : [];
  });
}

/** Each room with the rooms it imports, by name. */
export function readRooms() {
  const files = execFileSync('git', ['ls-files', 'src', 'bin'], { encoding: 'utf8' }).split('\n');
  const rooms = new Map();
  for (const file of files.filter((one) => /\.tsx?$/.test(one) && !/\.test\./.test(one)).sort()) {
    const room = roomOf(file);
    if (room === null || room === 'core/tsconfig.json') continue;
    const uses = rooms.get(room) ?? rooms.set(room, new Set()).get(room);
    for (const target of importsOf(file)) {
      const other = roomOf(target);
      if (other !== null && other !== room) uses.add(other);
    }
  }
  return rooms;
}

/** How many floors a room stands above the ground: one more than the highest room it imports. */
function floors(rooms) {
  const known = new Map();
  const floorOf = (room) => {
    if (known.has(room)) return known.get(room);
    known.set(room, 0);
    const below = [...(rooms.get(room) ?? [])].map(floorOf);
    known.set(room, below.length === 0 ? 0 : 1 + Math.max(...below));
    return known.get(room);
  };
  for (const room of rooms.keys()) floorOf(room);
  return known;
}

/** Imports that no longer way through other rooms says already: with all of them nobody could see anything. */
function direct(rooms) {
  const below = new Map();
  const allBelow = (room) => {
    if (!below.has(room)) {
      const uses = [...(rooms.get(room) ?? [])];
      below.set(room, new Set(uses.flatMap((use) => [use, ...allBelow(use)])));
    }
    return below.get(room);
  };
  return new Map(
    [...rooms].map(([room, uses]) => [
      room,
      [...uses].filter((use) => ![...uses].some((other) => other !== use && allBelow(other).has(use))).sort(),
    ]),
  );
}

const [BOX, TALL, GAP, STEP] = [118, 30, 14, 64];

/**
 * The picture as SVG: ground floor below, a line from each room to what it imports, less what follows from
 * other lines.
 */
export function drawRooms() {
  const rooms = readRooms();
  const floor = floors(rooms);
  const levels = Math.max(...floor.values()) + 1;
  const rows = Array.from({ length: levels }, (_, level) =>
    [...rooms.keys()].filter((room) => floor.get(room) === level).sort(),
  );
  const width = Math.max(...rows.map((row) => row.length * (BOX + GAP))) + GAP;
  const height = levels * STEP + GAP;
  const place = new Map();
  for (const [level, row] of rows.entries()) {
    const left = (width - row.length * (BOX + GAP) + GAP) / 2;
    for (const [index, room] of row.entries()) {
      place.set(room, { x: left + index * (BOX + GAP), y: height - (level + 1) * STEP + STEP - TALL - GAP });
    }
  }
  const lines = [...direct(rooms)].flatMap(([room, uses]) =>
    uses.map((other) => {
      const [from, to] = [place.get(room), place.get(other)];
      return `<path d="M${from.x + BOX / 2} ${from.y + TALL}L${to.x + BOX / 2} ${to.y}"/>`;
    }),
  );
  const boxes = [...place].map(
    ([room, { x, y }]) =>
      `<rect x="${x}" y="${y}" width="${BOX}" height="${TALL}" rx="4"/><text x="${x + BOX / 2}" y="${y + 20}">${room}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" role="img" aria-label="Rooms and their imports">
<style>svg{background:#fff}path{stroke:#8fa3a0;stroke-width:1;fill:none;opacity:.55}rect{fill:#eef1ec;stroke:#435350}text{font:13px sans-serif;text-anchor:middle;fill:#14201e}</style>
<g>${lines.join('')}</g>
<g>${boxes.join('')}</g>
</svg>
`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync('docs/architecture.svg', drawRooms());
