/** What a key can do. `press` is the pedal. */
export const ACTIONS = {
  press: { where: 'everywhere', words: 'the next obvious thing: start, stop and keep, again' },
  discard: {
    where: 'while recording, after a take',
    words: 'throw the take away (as holding the pedal does)',
  },
  loop: { where: 'after a take', words: 'loop the weakest two bars (as a double press does)' },
  review: { where: 'after a take', words: 'open its review' },
  help: { where: 'while recording', words: 'hide help step by step: targets, chord names, the form' },
  louder: { where: 'record', words: 'band louder' },
  quieter: { where: 'record', words: 'band quieter' },
  drums: { where: 'record', words: 'drums on or off' },
  bass: { where: 'record', words: 'bass on or off' },
  chords: { where: 'record', words: 'chords on or off' },
  click: { where: 'record', words: 'click: off, every beat, two and four, one a bar' },
  faster: { where: 'drills', words: 'the next rung of the ladder' },
  slower: { where: 'drills', words: 'the rung below' },
  keys: { where: 'everywhere', words: 'this list' },
} as const;
export type Action = keyof typeof ACTIONS;
export const ACTION_NAMES = Object.keys(ACTIONS) as Action[];

/** Keys of each action, as KeyboardEvent.key names them. */
export type Bindings = Readonly<Record<Action, readonly string[]>>;

export const DEFAULT_BINDINGS: Bindings = {
  press: [' ', 'PageUp', 'PageDown', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'],
  discard: ['Backspace'],
  loop: ['l'],
  review: ['Enter'],
  help: ['h'],
  louder: ['+', '='],
  quieter: ['-'],
  drums: ['1'],
  bass: ['2'],
  chords: ['3'],
  click: ['4'],
  faster: ['.'],
  slower: [','],
  keys: ['?'],
};

const MOST_KEYS = 8;

/** Bindings out of what was kept: an action without a key that can be read has the one it began with. */
export function readBindings(kept: unknown): Bindings {
  const read = (kept ?? {}) as Record<string, unknown>;
  return Object.fromEntries(
    ACTION_NAMES.map((action) => {
      const keys = Array.isArray(read[action])
        ? (read[action] as unknown[])
            .filter((key): key is string => typeof key === 'string' && key.length > 0 && key.length < 24)
            .slice(0, MOST_KEYS)
        : [];
      return [action, keys.length > 0 ? keys : DEFAULT_BINDINGS[action]];
    }),
  ) as unknown as Bindings;
}

/** The action of a key; letters count alike large and small. */
export const actionOf = (bindings: Bindings, key: string): Action | null =>
  ACTION_NAMES.find((action) =>
    bindings[action].some(
      (own) => own === key || (own.length === 1 && own.toLowerCase() === key.toLowerCase()),
    ),
  ) ?? null;

/**
 * Gives an action one key; whoever had it loses it, and an action that loses its last one has the first of its
 * own again, if that is free.
 */
export function bind(bindings: Bindings, action: Action, key: string): Bindings {
  const others = Object.fromEntries(
    ACTION_NAMES.map((one) => [one, bindings[one].filter((own) => own !== key)]),
  ) as unknown as Record<Action, readonly string[]>;
  const bound = {
    ...others,
    [action]: action === 'press' ? [key, ...others.press].slice(0, MOST_KEYS) : [key],
  } as Record<Action, readonly string[]>;
  for (const one of ACTION_NAMES)
    if (bound[one].length === 0)
      bound[one] = DEFAULT_BINDINGS[one].filter(
        (own) => !ACTION_NAMES.some((other) => other !== one && bound[other].includes(own)),
      );
  return bound;
}

const NAMES: Record<string, string> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  PageUp: 'Page up',
  PageDown: 'Page down',
  Escape: 'Esc',
};
export const keyName = (key: string): string => NAMES[key] ?? (key.length === 1 ? key.toUpperCase() : key);
