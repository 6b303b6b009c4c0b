import { canonicalKey } from './keys';
import {
  COMMAND_IDS,
  COMMANDS,
  isCommandId,
  meetsPedal,
  PEDAL,
  scopeOf,
  scopesMeet,
  type CommandId,
} from './catalogue';

/** Keys the player gave; a command that is not in it has those it began with. */
export type Bindings = Readonly<Partial<Record<CommandId, readonly string[]>>>;

export const DEFAULT_BINDINGS: Bindings = {};
const MOST_KEYS = 8;
const LONGEST_KEY = 32;

export const keysOf = (bindings: Bindings, id: CommandId): readonly string[] =>
  bindings[id] ?? COMMANDS[id].keys;

/** Names of commands in what an earlier version stored. */
const EARLIER: Readonly<Record<string, CommandId>> = {
  press: 'app.pedal',
  discard: 'play.away',
  loop: 'play.loop',
  review: 'play.review',
  help: 'play.help',
  louder: 'play.louder',
  quieter: 'play.quieter',
  drums: 'play.drums',
  bass: 'play.bass',
  chords: 'play.chords',
  click: 'play.click',
  faster: 'play.faster',
  slower: 'play.slower',
  keys: 'app.keys',
};

const isKey = (key: unknown): key is string =>
  typeof key === 'string' && key.length > 0 && key.length <= LONGEST_KEY;

const sameKeys = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((key, index) => key === b[index]);

/** Bindings out of what was stored: what cannot be read is as it was in the beginning. */
export function readBindings(stored: unknown): Bindings {
  if (typeof stored !== 'object' || stored === null) return DEFAULT_BINDINGS;
  const read: Partial<Record<CommandId, readonly string[]>> = {};
  for (const [name, keys] of Object.entries(stored)) {
    const id = EARLIER[name] ?? name;
    if (!isCommandId(id) || !Array.isArray(keys) || !keys.every(isKey)) continue;
    const own = keys.slice(0, MOST_KEYS).map((key) => (key.length === 1 ? canonicalKey(key) : key));
    if (!sameKeys(own, COMMANDS[id].keys)) read[id] = own;
  }
  return read;
}

/** Can both commands be asked for by one key at the same moment? */
function collide(a: CommandId, b: CommandId): boolean {
  if (a === b) return false;
  if (a === PEDAL) return meetsPedal(b);
  if (b === PEDAL) return meetsPedal(a);
  return scopesMeet(scopeOf(a), scopeOf(b));
}

/** Commands that have this key already where `id` works. */
export const conflictsOf = (bindings: Bindings, id: CommandId, key: string): CommandId[] =>
  COMMAND_IDS.filter((other) => collide(id, other) && keysOf(bindings, other).includes(key));

/**
 * Gives a command a key: the pedal one more, any other command this one alone. Those that had it where both
 * work lose it.
 * @returns the bindings, and the commands that lost the key
 */
export function bind(
  bindings: Bindings,
  id: CommandId,
  key: string,
): { readonly bindings: Bindings; readonly lost: readonly CommandId[] } {
  const lost = conflictsOf(bindings, id, key);
  const own = id === PEDAL ? [key, ...keysOf(bindings, id).filter((one) => one !== key)] : [key];
  const taken = lost.map((other) => [other, keysOf(bindings, other).filter((one) => one !== key)] as const);
  return { bindings: { ...bindings, ...Object.fromEntries(taken), [id]: own.slice(0, MOST_KEYS) }, lost };
}

/** Gives a command the keys it began with, except those another one has now. */
export function resetKeys(bindings: Bindings, id: CommandId): Bindings {
  const { [id]: _, ...others } = bindings;
  const free = COMMANDS[id].keys.filter((key) => conflictsOf(others, id, key).length === 0);
  return sameKeys(free, COMMANDS[id].keys) ? others : { ...others, [id]: free };
}
