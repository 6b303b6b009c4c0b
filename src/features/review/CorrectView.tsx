'use client';
import { useEffect, useMemo, useState } from 'react';
import { formPositionOf, secondsAt, steady, type Timeline } from '@/core/chart';
import { editWords, type CorrectedNote, type Doubt, type NoteId } from '@/core/correct';
import type { Judgement } from '@/core/review';
import { FormLane } from '@/ui/form/FormLane';
import { HEAD, LANE, rowGeometry, type LaneSpec } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import { ChordSvg } from '@/ui/ChordSymbol';
import { intervalLabel } from '@/ui/intervalLabel';
import type { TakeOnForm } from '@/ui/form/takeOnForm';
import { nameOver } from './noteNames';
import { peaksOf, type Peaks } from './peaks';
import type { Correcting, CorrectProps } from './useCorrecting';
import type { ReviewTake } from './useReview';
import { elementAt, present } from '@/core/shared';
import type { Corrections } from './useReview';
import { Waveform } from './Waveform';

const WHY: Record<Doubt['why'], string> = {
  octave: 'an octave out of its line',
  between: 'between two keys',
  faint: 'hardly heard',
};

/**
 * The bar of a note opened wide, with its pitch as it sounded; what is in doubt is asked first, one key each.
 */
export function CorrectView(props: CorrectProps & { act: Correcting }) {
  const { judgement, take, byId, corrections, drawn, held, onHold, act, player } = props;
  const { timeline, doubts, notes } = judgement;
  const walk = take.pace ?? steady(take.tempo);
  const note = act.note;
  const beat = beatOfNote(judgement, held);
  const place = formPositionOf(timeline, Math.max(0, beat));
  const bar = elementAt(timeline.bars, place.bar);
  const offset = place.chorus * timeline.formBeats;
  const [from, to] = [bar.start + offset, bar.end + offset];
  const names = (one: CorrectedNote | undefined) =>
    one ? nameOver(chordAt(timeline, beatOfNote(judgement, one.id)), one.midi) : '';
  const last = corrections.edits[corrections.edits.length - 1];
  return (
    <>
      <h1 className="mb-3 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
        {act.doubt && note ? (
          <Question doubt={act.doubt} timeline={timeline} beat={beat} />
        ) : (
          <DoubtCount count={doubts.length} />
        )}
      </h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,900fr)_minmax(280px,288fr)]">
        <div className="min-w-0">
          <Row
            timeline={timeline}
            drawn={drawn}
            chorus={place.chorus}
            row={Math.floor(place.bar / 4)}
            marked={[from, to]}
            selected={note ? judgement.places.indexOf(note.id) : null}
            onNote={(index) => onHold(elementAt(judgement.places, index))}
          />
          <OpenBar
            take={take}
            judgement={judgement}
            from={from}
            to={to}
            walk={walk}
            held={held}
            doubt={act.doubt}
            onHold={onHold}
          />
        </div>
        <aside className="min-w-0">
          {act.doubt && (
            <section aria-label="Readings">
              <h2 className="border-b-2 border-now pb-1 text-[15px] text-dim">
                Note {doubts.indexOf(act.doubt) + 1} of {doubts.length}: two readings
              </h2>
              {act.doubt.readings.map((reading, index) => (
                <button
                  key={index}
                  type="button"
                  className="block w-full border-b border-line py-2 text-left"
                  onClick={index === 0 ? act.accept : act.other}
                >
                  <span className="flex items-baseline justify-between gap-3">
                    <b
                      className={
                        index === 0
                          ? 'text-[40px] leading-[44px] font-[640]'
                          : 'text-[32px] leading-[40px] font-[560] text-soft'
                      }
                    >
                      {readingName(reading.midi, timeline, beat)}
                    </b>
                    <span className="text-soft">
                      {Math.round(reading.belief * 100)} in 100{' '}
                      <kbd className="key ml-1">{index === 0 ? 'Enter' : 'O'}</kbd>
                    </span>
                  </span>
                </button>
              ))}
            </section>
          )}
          {doubts.length > 0 && (
            <section aria-label="In doubt" className="mt-4">
              <h2 className="heading">{act.doubt ? 'Still in doubt' : 'In doubt'}</h2>
              <ul className="max-h-40 overflow-y-auto">
                {doubts
                  .filter(({ id }) => id !== held)
                  .slice(0, 20)
                  .map((one) => {
                    const at = formPositionOf(timeline, Math.max(0, beatOfNote(judgement, one.id)));
                    return (
                      <li key={one.id} className="border-t border-line">
                        <button
                          type="button"
                          className="flex w-full justify-between py-1.5 text-left text-[15px]"
                          onClick={() => {
                            onHold(one.id);
                            void player.play(beatOfNote(judgement, one.id) - 1, null);
                          }}
                        >
                          <span className="text-soft">
                            bar {at.bar + 1}, chorus {at.chorus + 1}
                          </span>
                          <b>
                            {one.readings
                              .map(({ midi }) => readingName(midi, timeline, beatOfNote(judgement, one.id)))
                              .join(' or ')}
                          </b>
                        </button>
                      </li>
                    );
                  })}
              </ul>
            </section>
          )}
          <section aria-label="Change a note" className="mt-4">
            <h2 className="heading">
              {note
                ? `${names(note)}${note.ghost ? ', a ghost' : ''}${note.edited ? ', changed by you' : ''}`
                : `${notes.length} notes; choose one`}
            </h2>
            <div className="grid grid-cols-2 gap-x-4 gap-y-1.5 border-t border-line pt-2 text-[15px] text-soft">
              <Act
                keys="↑ ↓"
                words="re-pitch"
                on={() => act.pitch(1)}
                more={() => act.pitch(-1)}
                disabled={!note}
                names={['a half step up', 'a half step down']}
              />
              <Act keys="A" words="add" on={act.add} />
              <Act keys="Del" words="take out" on={act.remove} disabled={!note} />
              <Act keys="S" words="split" on={act.split} disabled={!note} />
              <Act
                keys="[ ]"
                words="start"
                on={() => act.start(-1)}
                more={() => act.start(1)}
                disabled={!note}
                names={['start earlier', 'start later']}
              />
              <Act keys="M" words="join next" on={act.merge} disabled={!note} />
              <Act
                keys="{ }"
                words="end"
                on={() => act.end(-1)}
                more={() => act.end(1)}
                disabled={!note}
                names={['end earlier', 'end later']}
              />
              <Act keys="G" words={note?.ghost ? 'a note again' : 'ghost'} on={act.ghost} disabled={!note} />
              <Act
                keys="< >"
                words="move"
                on={() => act.move(-1)}
                more={() => act.move(1)}
                disabled={!note}
                names={['move earlier', 'move later']}
              />
              {doubts.length > 0 && <Act keys="N" words="next doubt" on={act.skip} />}
            </div>
          </section>
          <p className="mt-3 border-t border-line pt-2 text-[15px] text-soft" role="status">
            <button type="button" className="disabled:text-dim" disabled={!last} onClick={corrections.undo}>
              <kbd className="key mr-1.5">Ctrl Z</kbd>undo
              {last && (
                <>
                  : <b>{editWords(last, names(byId.get(last.id)) || 'a note')}</b>
                </>
              )}
            </button>
            {corrections.undone.length > 0 && (
              <button type="button" className="ml-4" onClick={corrections.redo}>
                <kbd className="key mr-1.5">Ctrl Y</kbd>redo
              </button>
            )}
            <br />
            {corrections.edits.length} {corrections.edits.length === 1 ? 'edit' : 'edits'} in this take,{' '}
            <Saving corrections={corrections} />; what was heard stays underneath
          </p>
        </aside>
      </div>
    </>
  );
}

function Act({
  keys,
  words,
  on,
  more,
  disabled = false,
  names,
}: {
  keys: string;
  words: string;
  on: () => void;
  more?: () => void;
  disabled?: boolean;
  names?: readonly [string, string];
}) {
  const parts = keys.split(' ');
  return (
    <span className="flex items-center gap-2">
      {parts.map((key, index) => (
        <button
          key={key}
          type="button"
          disabled={disabled}
          aria-label={names ? names[index] : words}
          className="key hover:text-ink disabled:opacity-40"
          onClick={index === 0 ? on : more}
        >
          {key}
        </button>
      ))}
      <span aria-hidden="true">{words}</span>
    </span>
  );
}

const chordAt = (timeline: Timeline, beat: number): string | null => {
  const inForm =
    Math.max(0, beat) - Math.floor(Math.max(0, beat) / timeline.formBeats + 1e-9) * timeline.formBeats;
  return timeline.chordSpans.findLast(({ start }) => start <= inForm + 1e-6)?.chord?.symbol ?? null;
};
const readingName = (midi: number | null, timeline: Timeline, beat: number): string =>
  midi === null ? 'No note' : `${nameOver(chordAt(timeline, beat), midi)}${Math.floor(midi / 12) - 1}`;

/** Where a note begins in beats, whether or not the analysis took it. */
function beatOfNote({ report, places, notes }: Judgement, id: NoteId | null): number {
  const place = id === null ? -1 : places.indexOf(id);
  if (place >= 0) return elementAt(report.notes, place).onsetBeat;
  const index = notes.findIndex((note) => note.id === id);
  for (let away = 1; away < notes.length && index >= 0; away++)
    for (const other of [index - away, index + away]) {
      const at = notes[other] ? places.indexOf(elementAt(notes, other).id) : -1;
      if (at >= 0) return elementAt(report.notes, at).onsetBeat;
    }
  return 0;
}

const WIDTH = 900;

function Row({
  timeline,
  drawn,
  chorus,
  row: index,
  marked,
  selected,
  onNote,
}: {
  timeline: Timeline;
  drawn: TakeOnForm;
  chorus: number;
  row: number;
  marked: readonly [number, number];
  selected: number | null;
  onNote: (index: number) => void;
}) {
  const row = useMemo(() => elementAt(formRows(timeline), index), [timeline, index]);
  const geometry = rowGeometry(row, WIDTH);
  const lane: LaneSpec = { chorus, view: 'height', height: LANE };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEAD + LANE + 4}`}
      className="block w-full"
      role="img"
      aria-label={`Bars ${present(row.bars[0]).number} to ${present(row.bars[row.bars.length - 1]).number}, chorus ${chorus + 1}`}
    >
      {row.chords.map((chord) => (
        <ChordSvg
          key={chord.start}
          x={geometry.x(chord.start) + 8}
          y={18}
          symbol={chord.symbol}
          size={18}
          fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
        />
      ))}
      <g transform={`translate(0 ${HEAD})`}>
        <rect
          x={geometry.left}
          y={1}
          width={geometry.right - geometry.left}
          height={LANE - 3}
          fill="var(--row)"
        />
        <text x={0} y={LANE / 2 + 5} fontSize={14} style={{ fill: 'var(--soft)' }}>
          {chorus + 1}
        </text>
        <FormLane
          row={row}
          width={WIDTH}
          formBeats={timeline.formBeats}
          choruses={[chorus]}
          take={drawn}
          lane={lane}
          geometry={geometry}
          marked={marked}
          selected={selected}
          onNote={onNote}
        />
      </g>
    </svg>
  );
}

const LEFT = 56;
const WAVE = 60;

type OpenProps = {
  take: ReviewTake;
  judgement: Judgement;
  from: number;
  to: number;
  walk: ReturnType<typeof steady>;
  held: NoteId | null;
  doubt: Doubt | undefined;
  onHold: (id: NoteId) => void;
};

/** One bar: posts at the onsets, a ledge under each pitch, ledges for the chord’s tones; its sound below. */
function OpenBar({ take, judgement, from, to, walk, held, doubt, onHold }: OpenProps) {
  const { timeline, notes } = judgement;
  const [start, end] = [take.offsetSec + secondsAt(walk, from), take.offsetSec + secondsAt(walk, to)];
  const inside = notes.filter((note) => note.offsetSec > start && note.onsetSec < end);
  const pitches = [
    ...inside.map(({ midi }) => midi),
    ...(doubt?.readings.flatMap(({ midi }) => midi ?? []) ?? []),
  ];
  const [low, high] = pitches.length ? [Math.min(...pitches) - 3, Math.max(...pitches) + 4] : [55, 72];
  const per = Math.min(30, 330 / (high - low));
  const tall = (high - low) * per + 30;
  const x = (seconds: number) => LEFT + ((seconds - start) / (end - start)) * (WIDTH - LEFT);
  const y = (midi: number) => 20 + (high - midi) * per;
  const chord =
    timeline.chordSpans.findLast(
      (stretch) =>
        stretch.start <= from - Math.floor(from / timeline.formBeats + 1e-9) * timeline.formBeats + 1e-6,
    )?.chord ?? null;
  const tones = chord?.tones ?? [];
  const peaks = usePeaks(take, start, end);
  const beats = Math.round(to - from);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${tall + WAVE + 34}`}
      className="mt-2 block w-full"
      role="group"
      aria-label="The bar opened"
    >
      {Array.from({ length: high - low + 1 }, (_, step) => low + step).map((midi) => {
        const tone = tones.find(({ pc }) => pc === ((midi % 12) + 12) % 12);
        return (
          tone && (
            <g key={midi}>
              <line x1={LEFT} y1={y(midi)} x2={WIDTH} y2={y(midi)} stroke="var(--line)" strokeWidth={1.25} />
              <text x={0} y={y(midi) + 5} fontSize={15} fontWeight={620}>
                {nameOver(chord?.symbol ?? null, midi)}
              </text>
              <text
                x={LEFT - 8}
                y={y(midi) + 4}
                fontSize={12}
                textAnchor="end"
                style={{ fill: 'var(--dim)' }}
              >
                {intervalLabel(tone.interval)}
              </text>
            </g>
          )
        );
      })}
      {Array.from({ length: beats * 2 + 1 }, (_, half) => (
        <line
          key={half}
          x1={LEFT + (half / (beats * 2)) * (WIDTH - LEFT)}
          y1={6}
          x2={LEFT + (half / (beats * 2)) * (WIDTH - LEFT)}
          y2={tall}
          stroke="var(--line)"
          strokeWidth={half % 2 ? 0.5 : 1.25}
        />
      ))}
      {Array.from({ length: beats * 2 }, (_, half) => (
        <text
          key={half}
          x={LEFT + (half / (beats * 2)) * (WIDTH - LEFT) + 4}
          y={tall + 18}
          fontSize={14}
          fontWeight={560}
          style={{ fill: 'var(--soft)' }}
        >
          {half % 2 ? 'and' : half / 2 + 1}
        </text>
      ))}
      {peaks && (
        <Waveform peaks={peaks} left={LEFT} right={WIDTH} middle={tall + 30 + WAVE / 2} tall={WAVE} />
      )}
      {inside.map((note) => (
        <NotePost
          key={note.id}
          note={note}
          isHeld={note.id === held}
          doubt={note.id === held ? doubt : undefined}
          x={x}
          y={y}
          per={per}
          label={nameOver(chord?.symbol ?? null, note.midi)}
          onHold={() => onHold(note.id)}
        />
      ))}
    </svg>
  );
}

function NotePost({
  note,
  isHeld,
  doubt,
  x,
  y,
  per,
  label,
  onHold,
}: {
  note: CorrectedNote;
  isHeld: boolean;
  doubt: Doubt | undefined;
  x: (seconds: number) => number;
  y: (midi: number) => number;
  per: number;
  label: string;
  onHold: () => void;
}) {
  const [a, b] = [Math.max(LEFT, x(note.onsetSec)), Math.min(WIDTH, x(note.offsetSec))];
  let colour: 'var(--now)' | 'var(--dim)' | 'var(--ink)' | 'var(--h1)';
  if (isHeld) colour = 'var(--now)';
  else if (note.ghost) colour = 'var(--dim)';
  else if (note.edited) colour = 'var(--ink)';
  else colour = 'var(--h1)';
  const line = y(note.midi);
  const bend =
    note.bend
      ?.map(
        ([seconds, cents], index) =>
          `${index === 0 ? 'M' : 'L'}${x(note.onsetSec + seconds).toFixed(1)} ${(line - 7 - (cents / 100) * per).toFixed(1)}`,
      )
      .join('') ?? `M${a + 3} ${(line - 7 - ((note.cents ?? 0) / 100) * per).toFixed(1)}H${b - 3}`;
  const other = doubt?.readings.find(({ midi }) => midi !== note.midi && midi !== null)?.midi;
  return (
    <g onClick={onHold} className="cursor-pointer">
      <rect x={a - 2} y={line - 26} width={Math.max(10, b - a + 4)} height={34} fill="transparent" />
      <line
        x1={a}
        y1={line + 1}
        x2={a}
        y2={line - 26}
        stroke={colour}
        strokeWidth={isHeld ? 3 : 1.75}
        strokeDasharray={note.ghost ? '2 3' : undefined}
      />
      <line
        x1={a}
        y1={line}
        x2={b}
        y2={line}
        stroke={colour}
        strokeWidth={3}
        strokeDasharray={note.ghost ? '2 3' : undefined}
      />
      <path d={bend} fill="none" stroke="var(--ink)" strokeWidth={1.75} opacity={note.ghost ? 0.4 : 1} />
      <text
        x={(a + b) / 2}
        y={line - 30}
        fontSize={13}
        fontWeight={620}
        textAnchor="middle"
        style={{ fill: isHeld ? 'var(--ink)' : 'var(--soft)' }}
      >
        {note.ghost ? `(${label})` : label}
      </text>
      {isHeld && other !== undefined && other !== null && (
        <line
          x1={a}
          y1={y(other)}
          x2={b}
          y2={y(other)}
          stroke="var(--now)"
          strokeWidth={2}
          strokeDasharray="5 4"
        />
      )}
    </g>
  );
}

function usePeaks(take: ReviewTake, start: number, end: number): Peaks | null {
  const [found, setFound] = useState<{ key: string; peaks: Peaks | null } | null>(null);
  const key = `${take.id} ${start} ${end}`;
  useEffect(() => {
    if (take.soundGone) return;
    let gone = false;
    peaksOf(take.id, start, end, 420)
      .then((peaks) => {
        if (!gone) setFound({ key, peaks });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [take.id, take.soundGone, start, end, key]);
  return found?.key === key ? found.peaks : null;
}

/** The two readings of a note in doubt, as a question. */
function Question({ doubt, timeline, beat }: { doubt: Doubt; timeline: Timeline; beat: number }) {
  const why = WHY[doubt.why];
  const second = readingName(doubt.readings[1].midi, timeline, beat);
  return (
    <>
      {why.charAt(0).toUpperCase() + why.slice(1)}:{' '}
      <b className="font-[620] text-ink">
        {readingName(doubt.readings[0].midi, timeline, beat)}, or{' '}
        {second.toLowerCase() === 'no note' ? 'no note' : second}?
      </b>
    </>
  );
}

function DoubtCount({ count }: { count: number }) {
  if (count === 0) {
    return (
      <>
        No note of this take is in doubt. <b className="font-[620] text-ink">Any of them can be changed.</b>
      </>
    );
  }
  return (
    <>
      {count} {count === 1 ? 'note is' : 'notes are'} in doubt;{' '}
      <b className="font-[620] text-ink">they are left out of the findings until you say.</b>
    </>
  );
}

/** Whether the server has the edits. */
function Saving({ corrections: { keeping, retry } }: { corrections: Corrections }) {
  if (keeping === 'kept') return 'saved';
  if (keeping === 'keeping') return 'being saved';
  return (
    <span className="text-ink">
      not saved yet: the server does not answer.{' '}
      <button type="button" className="underline" onClick={retry}>
        Try again
      </button>
    </span>
  );
}
