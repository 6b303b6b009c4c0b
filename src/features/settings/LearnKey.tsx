'use client';
import { useEffect, useState } from 'react';
import { notify } from '@/ui/toast/toasts';
import { bind, keysOf } from '../shell/commands/bindings';
import { COMMANDS, PEDAL, SCOPES, scopeOf, type CommandId } from '../shell/commands/catalogue';
import { captureKey } from '../shell/commands/keyboard';
import { shownKey } from '../shell/commands/keys';
import { prefer, preferences, usePreferences } from '../shell/preferences';

/** Gives a command a key; who had it before is said, and can have it back. */
function learn(id: CommandId, key: string): void {
  const before = preferences().bindings;
  const { bindings, lost } = bind(before, id, key);
  prefer({ bindings });
  if (lost.length === 0) return;
  const names = lost.map((other) => `“${COMMANDS[other].label}” (${SCOPES[scopeOf(other)]})`).join(' and ');
  notify(`${shownKey(key)} was the key of ${names}; it is not any more.`, {
    label: 'As it was',
    run: () => prefer({ bindings: before }),
  });
}

/** The keys of a command as a button: pressed, it takes the next key that is pressed. */
export function LearnKey({ id, most = 3 }: { id: CommandId; most?: number }) {
  const { bindings } = usePreferences();
  const [isLearning, setIsLearning] = useState(false);
  useEffect(() => {
    if (!isLearning) return;
    return captureKey((key) => {
      setIsLearning(false);
      if (key !== 'Escape') learn(id, key);
    });
  }, [isLearning, id]);
  const keys = keysOf(bindings, id);
  return (
    <button
      type="button"
      className="flex min-h-7 flex-wrap items-center gap-1 text-left hover:text-ink"
      aria-label={`Change the key of: ${COMMANDS[id].label}`}
      onClick={() => setIsLearning(!isLearning)}
    >
      {isLearning && (
        <span className="text-now">{id === PEDAL ? 'press a key, Esc leaves it' : 'press a key'}</span>
      )}
      {!isLearning && keys.length === 0 && <span className="text-dim">none</span>}
      {!isLearning &&
        keys.slice(0, most).map((key) => (
          <kbd key={key} className="key">
            {shownKey(key)}
          </kbd>
        ))}
    </button>
  );
}
