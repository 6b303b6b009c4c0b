'use client';
import { takeTroubleWords } from '@/presentation';
import { useMemo, useRef } from 'react';
import { planFromWords } from '@/core/plan';
import { isRolling, type EndedTake } from '@/audio/sitting';
import { unwrap } from '@/core/shared';
import { Cautions } from '../shell/Cautions';
import { KeyOf } from '../shell/commands/KeyOf';
import { NoInput } from '../shell/NoInput';
import { Shell } from '../shell/Shell';
import { Finished } from './Finished';
import { FormPreview } from './FormPreview';
import { Setup } from './Setup';
import { type RecordModel } from './useRecordModel';

const SOUND_FILES = 'audio/*,.wav,.mp3,.flac,.ogg,.m4a';

/** The input could not be opened: every other way in. */
export function WithoutInput({ model }: { model: RecordModel }) {
  const { sitting, bring, rigState, chart, start, comeInBy, letStandInPlay } = model;
  const fileInput = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={fileInput}
        type="file"
        accept={SOUND_FILES}
        className="sr-only"
        tabIndex={-1}
        aria-label="A recording"
        onChange={({ target }) => {
          const chosen = target.files?.[0];
          if (!chosen) return;
          sitting.back();
          bring.file(chosen, 0);
        }}
      />
      <NoInput
        trouble={rigState.phase === 'trouble' ? rigState.trouble : 'busy'}
        title={chart.title}
        onAgain={start}
        onDevice={(deviceId) => comeInBy({ kind: 'input', deviceId, channel: 'mix' })}
        onFile={() => fileInput.current?.click()}
        onStandIn={letStandInPlay}
        onBack={() => sitting.back()}
      />
    </>
  );
}

/** The result of the take that has just ended. */
type AfterTakeProps = { readonly model: RecordModel; readonly ended: EndedTake };
export function AfterTake({ model, ended }: AfterTakeProps) {
  const { state, sitting, result, start, loop, open } = model;
  const bars = result?.loop;
  return (
    <Finished
      take={ended}
      result={result}
      next={isRolling(state) ? sitting : null}
      again={{ words: 'again from the top', act: start }}
      stay={{ words: 'stay and look', act: () => sitting.stay() }}
      discard={{ words: 'throw this take away', act: () => sitting.throwAway() }}
      loop={bars && loop ? { words: `loop bars ${bars[0]} and ${bars[1]}`, act: loop } : null}
      review={() => ended.kept && open(ended.id)}
      setup={() => sitting.back()}
    />
  );
}

function troubleOf({ state, bring, rigState }: RecordModel): string | null {
  if (state.trouble !== null) return takeTroubleWords(state.trouble);
  if (bring.state.phase === 'failed') return bring.state.message;
  if (rigState.phase !== 'lost') return null;
  return `${rigState.label || 'The input'} was disconnected. Plug it in again, or choose another.`;
}

/** What to play and how, with the form under it. */
export function BeforeTake({ model }: { model: RecordModel }) {
  const { charts, settings, setSettings, sitting, rig, bring, rest, route, start } = model;
  const choice = useMemo(() => unwrap(planFromWords(settings.plan)), [settings.plan]);
  return (
    <Shell place="Record" footer={<SetupFooter />}>
      <Cautions rest={rest} />
      <Setup
        charts={charts}
        settings={settings}
        onChange={(next) => {
          sitting.say(null);
          setSettings(next);
        }}
        onStart={start}
        rig={rig}
        onFile={bring.file}
        onStandIn={bring.standIn}
        trouble={troubleOf(model)}
      />
      {route && (
        <div className="mx-4 pb-8 sm:mx-8">
          <FormPreview chart={route.chart} tempo={settings.tempo} plan={choice} />
        </div>
      )}
    </Shell>
  );
}

const SetupFooter = () => (
  <>
    <span>
      <KeyOf command="play.next" /> or pedal: count me in
    </span>
    <span className="hidden sm:inline">
      <KeyOf command="app.keys" /> every key
    </span>
    <span className="sm:ml-auto">
      Start with the output low; headphones keep the band out of the microphone.
    </span>
  </>
);
