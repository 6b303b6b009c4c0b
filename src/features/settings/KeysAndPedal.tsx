'use client';
import { useEffect, useState } from 'react';
import { ACTION_NAMES, ACTIONS, bind, DEFAULT_BINDINGS, keyName, type Action } from '../shell/bindings';
import { listenToMidi, MIDI_PEDAL } from '../shell/pedal';
import { prefer, usePreferences } from '../shell/preferences';

const SHORT: Record<Action, string> = {
  press: 'Pedal',
  discard: 'Throw away',
  loop: 'Loop two bars',
  review: 'Review',
  help: 'Hide help',
  louder: 'Band louder',
  quieter: 'Band quieter',
  drums: 'Drums',
  bass: 'Bass',
  chords: 'Chords',
  click: 'Click',
  faster: 'Faster',
  slower: 'Slower',
  keys: 'This list',
};

/** What the pedal sends, every key, and how to change it: press the one you want. */
export function KeysAndPedal() {
  const { bindings, midi } = usePreferences();
  const [learning, setLearning] = useState<Action | null>(null);
  const [heard, setHeard] = useState<string | null>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (learning === null) {
        if (
          bindings.press.includes(event.key) &&
          !(event.target instanceof HTMLElement && event.target.closest('input, select, button, a'))
        )
          setHeard(keyName(event.key));
        return;
      }
      event.preventDefault();
      event.stopPropagation();
      if (event.key !== 'Escape') prefer({ bindings: bind(bindings, learning, event.key) });
      setLearning(null);
    };
    const onMidi = () => setHeard('MIDI pedal');
    window.addEventListener('keydown', onKey, true);
    window.addEventListener(MIDI_PEDAL, onMidi);
    return () => {
      window.removeEventListener('keydown', onKey, true);
      window.removeEventListener(MIDI_PEDAL, onMidi);
    };
  }, [learning, bindings]);
  const changed = JSON.stringify(bindings) !== JSON.stringify(DEFAULT_BINDINGS);
  return (
    <>
      <p className="leading-6 text-soft">
        <span className="text-dim">press</span> next thing, <span className="text-dim">hold</span> away or
        back, <span className="text-dim">twice</span> loop
      </p>
      <ul className="mt-1.5 grid grid-cols-2 gap-x-4">
        {ACTION_NAMES.map((action) => (
          <li
            key={action}
            className={`grid items-center gap-x-2 py-[2px] ${action === 'press' ? 'col-span-2 grid-cols-[118px_minmax(0,1fr)] gap-x-3' : 'grid-cols-[minmax(0,1fr)_auto]'}`}
          >
            <span className="text-dim" title={ACTIONS[action].words}>
              {SHORT[action]}
            </span>
            <button
              type="button"
              className="flex min-h-7 flex-wrap items-center gap-1 text-left hover:text-ink"
              aria-label={`Change the key of: ${ACTIONS[action].words}`}
              onClick={() => setLearning(learning === action ? null : action)}
            >
              {learning === action ? (
                <span className="text-now">
                  {action === 'press' ? 'press a key, Esc leaves it' : 'press a key'}
                </span>
              ) : (
                <BoundKeys keys={bindings[action]} />
              )}
              {action === 'press' && learning === null && heard && (
                <span className="ml-1 text-soft">{heard} heard just now</span>
              )}
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1">
        <MidiSwitch on={midi} />
        {changed && (
          <button
            type="button"
            className="text-sm text-soft underline hover:text-ink"
            onClick={() => prefer({ bindings: DEFAULT_BINDINGS })}
          >
            all as they were
          </button>
        )}
      </p>
    </>
  );
}

/** MIDI pedals are asked for only when the player wants them. */
function MidiSwitch({ on }: { on: boolean }) {
  const [inputs, setInputs] = useState<readonly string[] | null>(null);
  const [none, setNone] = useState(false);
  useEffect(() => {
    if (!on) return;
    let stop: (() => void) | null = null;
    let gone = false;
    void listenToMidi().then((listening) => {
      if (gone) return listening?.stop();
      if (!listening) return setNone(true);
      stop = listening.stop;
      setInputs(listening.inputs());
    });
    return () => {
      gone = true;
      stop?.();
    };
  }, [on]);
  return (
    <label className="flex items-center gap-2 text-soft">
      <input
        type="checkbox"
        className="h-5 w-5 accent-(--h2)"
        checked={on}
        onChange={(event) => {
          setNone(false);
          setInputs(null);
          prefer({ midi: event.target.checked });
        }}
      />
      MIDI pedal
      {midiWords(on, none, inputs)}
    </label>
  );
}

function midiWords(on: boolean, none: boolean, inputs: readonly string[] | null) {
  if (on && none) return ': this browser gives none to pages';
  if (on && inputs !== null) {
    if (inputs.length > 0) return `: ${inputs.join(', ')}`;
    return ': none is plugged in';
  }
  return '';
}

function BoundKeys({ keys }: { keys: readonly string[] }) {
  if (keys.length === 0) return <span className="text-dim">none</span>;
  return keys.slice(0, 4).map((key) => (
    <kbd key={key} className="key">
      {keyName(key)}
    </kbd>
  ));
}
