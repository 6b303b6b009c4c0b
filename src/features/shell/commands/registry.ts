import { createStore } from '@/core/shared';
import { COMMAND_IDS, COMMANDS, type CommandId, type PedalGesture } from './catalogue';

/** What a screen makes of a command now. `when` is false where it would do nothing. */
export type Handler =
  | (() => void)
  | { readonly run: () => void; readonly when?: boolean; readonly label?: string }
  | null
  | undefined;
export type Handlers = Readonly<Partial<Record<CommandId, Handler>>>;

/** A command that works now. */
export type Command = {
  readonly id: CommandId;
  readonly label: string;
  readonly run: () => void;
  readonly pedal: PedalGesture | undefined;
};

export type SourceOptions = {
  /** Higher ones are asked first; of equals the latest. */
  readonly priority?: number;
  /** It stands in a dialog: its commands work while one is open. */
  readonly inDialog?: boolean;
  /** A long page: keys that scroll it are not the pedal's. */
  readonly scrolls?: boolean;
};
type Source = { readonly handlers: () => Handlers; readonly options: SourceOptions };

const sources: Source[] = [];

/** Counts the moments at which what can be done may have changed. */
const changes = createStore(0);
export const onCommandsChanged = changes.subscribe;
export const commandsChanged = (): void => changes.set(changes.get() + 1);

/**
 * Adds what a screen can do while it is shown.
 * @param handlers asked anew each time: what commands do depends on the moment
 * @returns how to take it away
 */
export function addSource(handlers: () => Handlers, options: SourceOptions = {}): () => void {
  const source = { handlers, options };
  const rank = options.priority ?? 0;
  const after = sources.findIndex((other) => (other.options.priority ?? 0) <= rank);
  sources.splice(after < 0 ? sources.length : after, 0, source);
  commandsChanged();
  return () => {
    const at = sources.indexOf(source);
    if (at >= 0) sources.splice(at, 1);
    commandsChanged();
  };
}

function commandOf(id: CommandId, handler: Handler): Command | null {
  if (!handler) return null;
  const { label, pedal } = COMMANDS[id];
  if (typeof handler === 'function') return { id, label, run: handler, pedal };
  if (handler.when === false) return null;
  return { id, label: handler.label ?? label, run: handler.run, pedal };
}

/** The command of this name as it works now, or null. */
export function commandNow(id: CommandId, inDialog = false): Command | null {
  for (const { handlers, options } of sources) {
    if (inDialog && !options.inDialog) continue;
    const command = commandOf(id, handlers()[id]);
    if (command) return command;
  }
  return null;
}

/** All commands that work now, in the order of the catalogue. */
export const commandsNow = (): Command[] =>
  COMMAND_IDS.map((id) => commandNow(id)).filter((command) => command !== null);

/** The first command that `wanted` asks for, the foremost source first. */
export function findCommand(wanted: (id: CommandId) => boolean, inDialog: boolean): Command | null {
  for (const { handlers, options } of sources) {
    if (inDialog && !options.inDialog) continue;
    for (const [id, handler] of Object.entries(handlers()) as [CommandId, Handler][]) {
      if (!wanted(id)) continue;
      const command = commandOf(id, handler);
      if (command) return command;
    }
  }
  return null;
}

/** Does the foremost screen that uses the pedal scroll by the same keys? */
export const pedalScrolls = (): boolean =>
  sources.find(({ handlers }) =>
    Object.keys(handlers()).some((id) => COMMANDS[id as CommandId].pedal !== undefined),
  )?.options.scrolls ?? false;
