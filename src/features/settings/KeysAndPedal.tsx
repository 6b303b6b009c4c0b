'use client';
import { Switch } from '@/ui/controls';
import { useEffect, useState } from 'react';
import { keysOf } from '../shell/commands/bindings';
import { PEDAL } from '../shell/commands/catalogue';
import { onPedalKey } from '../shell/commands/keyboard';
import { shownKey } from '../shell/commands/keys';
import { listenToMidi } from '../shell/pedal';
import { prefer, usePreferences } from '../shell/preferences';
import { LearnKey } from './LearnKey';

/** What the pedal sends, what its gestures mean, and whether MIDI pedals are listened to. */
export function KeysAndPedal() {
  const { midi } = usePreferences();
  const heard = useHeardPedal();
  return (
    <>
      <p className="leading-6 text-soft">
        <span className="text-dim">press</span> next thing, <span className="text-dim">hold</span> away or
        back, <span className="text-dim">twice</span> loop
      </p>
      <div className="mt-1.5 grid grid-cols-[118px_minmax(0,1fr)] items-center gap-x-3 py-[2px]">
        <span className="text-dim">Pedal sends</span>
        <span className="flex flex-wrap items-center gap-1">
          <LearnKey id={PEDAL} most={4} />
          {heard && <span className="ml-1 text-soft">{heard} heard just now</span>}
        </span>
      </div>
      <p className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1">
        <MidiSwitch on={midi} />
        <a href="#keys" className="text-sm text-soft underline hover:text-ink">
          every key
        </a>
      </p>
    </>
  );
}

/** The key the pedal last sent while this is shown. */
function useHeardPedal(): string | null {
  const { bindings } = usePreferences();
  const [heard, setHeard] = useState<string | null>(null);
  useEffect(() => onPedalKey(setHeard), []);
  if (heard === null) return null;
  return keysOf(bindings, PEDAL).includes(heard) ? shownKey(heard) : heard;
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
      <Switch
        checked={on}
        onChange={(midi) => {
          setNone(false);
          setInputs(null);
          prefer({ midi });
        }}
      />
      MIDI pedal
      {midiWords(on, none, inputs)}
    </label>
  );
}

function midiWords(on: boolean, none: boolean, inputs: readonly string[] | null): string {
  if (on && none) return ': this browser gives none to pages';
  if (!on || inputs === null) return '';
  return inputs.length > 0 ? `: ${inputs.join(', ')}` : ': none is plugged in';
}
