'use client';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { ACTION_NAMES, ACTIONS, keyName } from './bindings';
import { usePreferences } from './preferences';

/** Keys of the screens that are not the player's to change. */
const FIXED = [
  [
    'Review',
    [
      ['Space', 'play and pause'],
      ['← →', 'note'],
      ['C', 'change'],
      ['F', 'figure'],
      ['P', 'phrase'],
      ['R', 'chorus'],
      ['Shift', 'with those: back'],
      ['↑ ↓', 'the same place a chorus away'],
      ['Enter', 'hear it'],
      ['X', 'hear the one-note fix'],
      ['L', 'loop its bars'],
      ['1 2 3', 'hear a finding'],
      ['W', 'drill the first one'],
      ['Esc', 'let go'],
      ['D', 'draw by pitch or height'],
      ['Z', 'four bars, wide'],
      ['V', 'next view'],
      ['B', 'stand back'],
      ['− +', 'slower, faster'],
      ['T U K', 'take, band, click on or off'],
    ],
  ],
  [
    'Today',
    [
      ['Space', 'start what is due'],
      ['2 … 5', 'the others'],
      ['T', 'the last take'],
      ['G', 'something to be ready for'],
    ],
  ],
  [
    'Progress',
    [
      ['↑ ↓', 'row'],
      ['V', 'next view'],
      ['D', 'drill it'],
    ],
  ],
  [
    'Stand back',
    [
      ['Space', 'next change, with sound (the pedal’s press)'],
      ['Backspace', 'back to the full picture (hold)'],
      ['L', 'loop two bars (double)'],
    ],
  ],
  [
    'Correct',
    [
      ['Enter', 'take the likelier reading'],
      ['O', 'the other one'],
      ['N', 'next doubt'],
      ['↑ ↓', 'a half step'],
      ['Del', 'take out'],
      ['A', 'add'],
      ['S', 'split'],
      ['M', 'join with the next'],
      ['G', 'ghost'],
      ['[ ]', 'start'],
      ['{ }', 'end'],
      ['< >', 'move'],
      ['Ctrl Z Y', 'undo, redo'],
    ],
  ],
  ['Setting up a backing', [['T', 'tap along']]],
] as const;

/** Every key there is, under `?`; the pedal's are changed in Settings. */
export function KeyList() {
  const { bindings } = usePreferences();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        !bindings.keys.includes(event.key) ||
        event.ctrlKey ||
        event.metaKey ||
        (event.target instanceof HTMLElement &&
          event.target.closest('input, select, textarea, [contenteditable]'))
      )
        return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [bindings]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="hidden items-center gap-1.5 hover:text-ink sm:flex">
        <kbd className="key">{keyName(bindings.keys[0] ?? '?')}</kbd>keys
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 max-h-[88vh] w-[760px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border-t-[3px] border-now bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="mb-3 text-[25px] leading-8 font-[640]">Keys and pedal</Dialog.Title>
          <dl className="grid gap-x-6 gap-y-1.5 sm:grid-cols-[auto_minmax(0,1fr)_auto]">
            {ACTION_NAMES.map((action) => (
              <div key={action} className="contents">
                <dt className="flex flex-wrap items-start gap-1 pt-0.5">
                  {bindings[action].slice(0, 3).map((key) => (
                    <kbd key={key} className="key">
                      {keyName(key)}
                    </kbd>
                  ))}
                </dt>
                <dd className="text-soft">
                  {action === 'press' ? (
                    <>
                      <b className="text-ink">pedal:</b> {ACTIONS[action].words}; hold throws away or goes
                      back, twice loops
                    </>
                  ) : (
                    ACTIONS[action].words
                  )}
                </dd>
                <dd className="text-sm text-dim">{ACTIONS[action].where}</dd>
              </div>
            ))}
          </dl>
          {FIXED.map(([screen, keys]) => (
            <section key={screen} className="mt-4 border-t border-line pt-3">
              <h3 className="heading">{screen}</h3>
              <p className="flex flex-wrap gap-x-5 gap-y-1.5 text-soft">
                {keys.map(([key, words]) => (
                  <span key={key}>
                    <kbd className="key mr-1.5">{key}</kbd>
                    {words}
                  </span>
                ))}
              </p>
            </section>
          ))}
          <Dialog.Close className="quiet mt-5">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
