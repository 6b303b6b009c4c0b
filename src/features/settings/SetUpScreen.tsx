'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { Check, Circle } from 'lucide-react';
import { AudioInput } from '@/audio/input/audioInput';
import { readTuning, STANDARD_TUNING } from '@/core/neck';
import { ToggleRow } from '@/ui/controls';
import { useGuitar } from '@/ui/instrument';
import { prefer, usePreferences } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { TunerView, useTuner } from '../shell/Tuner';
import { useLevel, useRigState } from '../shell/useRig';
import { GuitarFields } from './GuitarFields';
import { LatencySection } from './LatencySection';
import { Sound } from './OwnSections';
import {
  guitarCheck,
  hearingCheck,
  inputCheck,
  latencyCheck,
  tuningCheck,
  type SetUpCheck,
} from './setUpChecks';

/** All that a first take needs, on one page: each step says whether it is done, and what that means. */
export function SetUpScreen() {
  const [rig] = useState(() => new AudioInput());
  useEffect(() => () => void rig.close(), [rig]);
  const { phase } = useRigState(rig);
  const { highest, clipped } = useLevel(rig);
  const { hearing } = usePreferences();
  const guitar = useGuitar();
  return (
    <Shell
      place="Settings"
      footer={
        <>
          <Link href="/record" className="go">
            Record a first take
          </Link>
          <span className="text-soft">All of this is kept on this computer, and stands in Settings.</span>
        </>
      }
    >
      <div className="mx-4 pt-3 pb-10 sm:mx-8">
        <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight">Set up, once.</h1>
        <p className="mt-1 text-[19px] leading-7 text-soft">
          Guitar in hand, three minutes. Any of it can be left for later.
        </p>
        <ol className="mt-5">
          <Step number={1} name="What comes in" check={inputCheck(phase, highest, clipped)}>
            <Sound rig={rig} />
          </Step>
          <Step number={2} name="How you hear the band" check={hearingCheck(hearing)}>
            <ToggleRow
              label="How you hear the band"
              value={hearing ?? 'unsaid'}
              choices={HEARINGS}
              onChange={(one) => prefer({ hearing: one === 'unsaid' ? null : one })}
            />
          </Step>
          <Step number={3} name="The delay" check={latencyCheck(phase === 'open' ? rig.latency : null)}>
            <LatencySection rig={rig} />
          </Step>
          <TuningStep rig={rig} />
          <Step number={5} name="Hand and instrument" check={guitarCheck(guitar)}>
            <GuitarFields />
          </Step>
        </ol>
      </div>
    </Shell>
  );
}

const HEARINGS = [
  ['headphones', 'headphones'],
  ['loudspeaker', 'loudspeaker'],
] as const;

type StepProps = { number: number; name: string; check: SetUpCheck; children: ReactNode };

/** One step: its state at the left, its controls at the right. */
function Step({ number, name, check, children }: StepProps) {
  const Sign = check.isDone ? Check : Circle;
  return (
    <li className="grid gap-x-10 gap-y-3 border-t border-line py-4 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
      <div>
        <h2 className="flex items-center gap-3 text-[22px] leading-8 font-[640]">
          <Sign
            aria-label={check.isDone ? 'done' : 'still to do'}
            className={`size-6 shrink-0 ${check.isDone ? 'text-h1' : 'text-dim'}`}
            strokeWidth={check.isDone ? 3 : 2}
          />
          {number}. {name}
        </h2>
        <p role="status" className="mt-1 ml-9 max-w-[46ch] leading-6 text-soft">
          {check.words}
        </p>
      </div>
      <div className="max-w-[480px]">{children}</div>
    </li>
  );
}

/** A string counts once it was heard within this, in cents: as the tuner's own mark. */
const IN_TUNE = 2;

function TuningStep({ rig }: { rig: AudioInput }) {
  const guitar = useGuitar();
  const { device, reference } = usePreferences();
  const { phase } = useRigState(rig);
  const tuning = useMemo(() => {
    const read = readTuning(guitar.tuning);
    return read.ok ? read.value : STANDARD_TUNING;
  }, [guitar.tuning]);
  const reading = useTuner(rig, tuning, reference, phase === 'open');
  const [inTune, setInTune] = useState<ReadonlySet<number>>(new Set());
  if (reading && Math.abs(reading.cents) <= IN_TUNE && !inTune.has(reading.string))
    setInTune(new Set([...inTune, reading.string]));
  return (
    <Step number={4} name="In tune" check={tuningCheck(inTune, tuning.length)}>
      {phase === 'open' ? (
        <TunerView reading={reading} tuning={tuning} a4={reference} />
      ) : (
        <button type="button" className="quiet text-ink" onClick={() => void rig.open(device)}>
          Listen to the strings
        </button>
      )}
    </Step>
  );
}
