'use client';
import { useState } from 'react';
import { noteName, SCALE_KINDS } from '@/core/music';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { KeyOf } from '../shell/commands/KeyOf';
import { intervalLabel } from '@/ui/intervalLabel';
import { typeset } from '@/core/music';
import { Select, Tip } from '@/ui/controls';
import type { StudyCell } from './studyView';
import type { Fact } from './studyFacts';

const DEGREES = [
  'I',
  'i',
  'bII',
  'ii',
  'II',
  'bIII',
  'iii',
  'IV',
  'iv',
  'V',
  'v',
  'bVI',
  'vi',
  'VI',
  'bVII',
  'vii',
  'V/ii',
  'V/iii',
  'V/IV',
  'V/iv',
  'V/V',
  'V/vi',
  'subV',
  'subV/ii',
  'subV/V',
  'vii/ii',
  'vii/V',
  'vii/vi',
];

type Props = {
  cell: StudyCell;
  facts: readonly Fact[];
  /** Both null: the machine's own reading again. */ onRead: (
    degree: string | null,
    scale: string | null,
  ) => void;
};

/** The selected chord: what it is, why it is read so, and the player's own reading in its place. */
export function ReadingCard({ cell, facts, onRead }: Props) {
  const { reading } = cell;
  return (
    <section aria-label="Selected chord" className="mt-3 border-t border-line pt-2">
      <h2 className="flex items-baseline gap-2 text-lg font-[640]">
        {cell.chord ? <ChordSymbol symbol={cell.chord.symbol} /> : 'N.C.'}
        <span className="font-[520] text-soft">{cell.degree}</span>
        <span className="ml-auto text-sm font-normal text-dim">
          {reading && `in ${typeset(noteName(reading.key.tonic))}${reading.key.minor ? ' minor' : ''}, `}bar{' '}
          {cell.bar}
        </span>
      </h2>
      {reading && (
        <p className="text-[14.5px] leading-5 text-soft">
          <ChordWords text={typeset(reading.reason)} />
        </p>
      )}
      <dl className="mt-1.5 grid grid-cols-[76px_minmax(0,1fr)] gap-x-2 gap-y-0.5 text-[14.5px] leading-5">
        {facts.map(({ name, values }) => (
          <div key={name} className="contents">
            <dt className="text-dim">{name}</dt>
            <dd className="text-ink">
              {values.map(({ text, interval }, place) => (
                <span key={place} className="mr-3 inline-block">
                  {text}
                  {interval !== undefined && <span className="ml-1 text-dim">{interval}</span>}
                </span>
              ))}
            </dd>
          </div>
        ))}
      </dl>
      {reading && <OtherReadings reading={reading} onRead={onRead} />}
    </section>
  );
}

type ReadingProps = { reading: NonNullable<StudyCell['reading']>; onRead: Props['onRead'] };

/** The runner-up, the way back to what was found, and the player's own. */
function OtherReadings({ reading, onRead }: ReadingProps) {
  const [isOwn, setIsOwn] = useState(false);
  const { runnerUp } = reading;
  return (
    <>
      <p className="mt-1.5 flex flex-wrap items-baseline gap-x-3 text-[14.5px] text-soft">
        {runnerUp && (
          <Tip words={typeset(runnerUp.reason)}>
            <button type="button" className="hover:text-ink" onClick={() => onRead(runnerUp.degree, null)}>
              <KeyOf command="study.otherReading" /> or {intervalLabel(runnerUp.degree)}
            </button>
          </Tip>
        )}
        {reading.overridden && (
          <button type="button" className="underline hover:text-ink" onClick={() => onRead(null, null)}>
            as it was found
          </button>
        )}
        <button
          type="button"
          className="underline hover:text-ink"
          aria-expanded={isOwn}
          onClick={() => setIsOwn(!isOwn)}
        >
          read it my way
        </button>
      </p>
      {isOwn && <OwnReading reading={reading} onRead={onRead} />}
    </>
  );
}

function OwnReading({ reading, onRead }: ReadingProps) {
  return (
    <p className="mt-1 flex flex-wrap gap-2 text-sm text-dim">
      <label>
        as{' '}
        <Select
          label="as"
          value={reading.degree}
          options={[...new Set([reading.degree, ...DEGREES])].map(
            (degree) => [degree, intervalLabel(degree)] as const,
          )}
          onChange={(degree) => onRead(degree, null)}
        />
      </label>
      <label>
        scale{' '}
        <Select
          label="scale"
          className="max-w-[176px]"
          value={reading.scale.kind}
          options={[...new Set([reading.scale.kind, ...SCALE_KINDS])].map((kind) => [kind, kind] as const)}
          onChange={(kind) => onRead(null, kind)}
        />
      </label>
    </p>
  );
}
