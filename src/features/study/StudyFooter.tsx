'use client';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { Slider } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import type { CommandId } from '../shell/commands/catalogue';
import { type StudyModel } from './useStudyModel';

const PHASES: Readonly<Record<string, string>> = {
  preparing: 'Preparing the sound',
  sounding: 'Sounding; the same key stops it',
};

export function Footer({ model }: { model: StudyModel }) {
  const { state, index, cell, next, hearing, trouble, hear, record } = model;
  return (
    <>
      <PositionSlider model={model} />
      {state.view === 'thread' && cell.chord && next.chord && next.index !== index && (
        <span className="hidden xl:inline">
          <ChordSymbol symbol={cell.chord.symbol} /> solid, <ChordSymbol symbol={next.chord.symbol} /> ringed
        </span>
      )}
      <span role="status" className="text-ink">
        {hearing.trouble ?? PHASES[hearing.phase] ?? trouble ?? ''}
      </span>
      <span className="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1">
        <HearButton command="study.hearChord" label="chord" onClick={() => hear('chord')} />
        <HearButton command="study.hearScale" label="scale" onClick={() => hear('scale')} />
        <HearButton command="study.hearThread" label="thread" onClick={() => hear('thread')} />
        <HearButton command="study.hearPlans" label="two plans" onClick={() => hear('plans')} />
        <button type="button" className="go text-base" onClick={record}>
          Record a take
        </button>
        <KeyOf command="study.record" className="hidden sm:inline" />
      </span>
    </>
  );
}

function PositionSlider({ model: { state, dispatch, instrument, guitar } }: { model: StudyModel }) {
  const { position } = state;
  const last = Math.min(instrument.frets, position + (position >= 7 ? 5 : 4));
  return (
    <>
      <label className="flex items-center gap-3">
        <b className="text-ink tabular-nums">Position {position}</b>
        <Slider
          label="Position"
          min={1}
          max={Math.max(1, instrument.frets - 4)}
          value={position}
          onChange={(next) => dispatch({ type: 'position', position: next })}
          className="w-24"
        />
      </label>
      <span className="hidden sm:inline">
        frets {position} to {last}
        {guitar.capo > 0 ? ` above the capo at ${guitar.capo}` : ''}
      </span>
    </>
  );
}

type HearProps = { command: CommandId; label: string; onClick: () => void };

function HearButton({ command, label, onClick }: HearProps) {
  return (
    <button type="button" onClick={onClick} className="hover:text-ink" aria-label={`Hear ${label}`}>
      <KeyOf command={command} className="hidden sm:inline-block" /> {label}
    </button>
  );
}
