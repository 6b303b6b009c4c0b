/**
 * The name of a key as bindings hold it: letters small, `Space` for the space bar, `Ctrl+` (or the command key)
 * and `Shift+` before it. Signs carry no `Shift+`: `?` is `?` on every keyboard.
 */
export function keyOfEvent(event: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>): string {
  const isLetter = event.key.length === 1 && event.key.toLowerCase() !== event.key.toUpperCase();
  const shift = event.shiftKey && (isLetter || event.key.length > 1) ? 'Shift+' : '';
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${shift}${canonicalKey(event.key)}`;
}

/** A key without its modifiers, as bindings name it. */
export function canonicalKey(key: string): string {
  if (key === ' ') return 'Space';
  return key.length === 1 ? key.toLowerCase() : key;
}

/** Keys that only change what another one means. */
export const isModifier = (key: string): boolean =>
  ['Control', 'Meta', 'Shift', 'Alt', 'AltGraph', 'CapsLock', 'Dead'].includes(key);

const SHOWN: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  PageUp: 'Page up',
  PageDown: 'Page down',
  Escape: 'Esc',
  Delete: 'Del',
};

/** A key as a screen shows it: `Ctrl+Shift+z` is `Ctrl Shift Z`. */
export function shownKey(key: string): string {
  const parts = key.split(/\+(?=.)/);
  return parts.map((part) => SHOWN[part] ?? (part.length === 1 ? part.toUpperCase() : part)).join(' ');
}
