'use client';
import { usePreferences } from '../preferences';
import { keysOf, type Bindings } from './bindings';
import { COMMANDS, PEDAL, type CommandId } from './catalogue';
import { shownKey } from './keys';

/** The key of a command as a screen shows it; the pedal's for what only the pedal does; none where it has none. */
export function firstKey(bindings: Bindings, id: CommandId): string | null {
  const own = keysOf(bindings, id)[0];
  if (own !== undefined) return shownKey(own);
  const pedal = COMMANDS[id].pedal === 'press' ? keysOf(bindings, PEDAL)[0] : undefined;
  return pedal === undefined ? null : shownKey(pedal);
}

/** The key a command has now; nothing where the player took it away. */
export function KeyOf({ command, className = '' }: { command: CommandId; className?: string }) {
  const { bindings } = usePreferences();
  const key = firstKey(bindings, command);
  return key === null ? null : <kbd className={`key ${className}`}>{key}</kbd>;
}
