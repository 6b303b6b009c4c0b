import { intoChordsWords } from '@/presentation/handoverWords';
import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { typeset } from '@/core/music';
import { intervalLabel } from '@/ui/intervalLabel';
import { Board } from './BoardFrame';
import { nameOver } from './noteNames';
import { beatsWord } from './rules';
import { placeText } from './Transport';
import { elementAt } from '@/core/shared';

type Props = { report: Report; timeline: Timeline; onHear: (beat: number) => void };
const round = (value: number) => Math.round(value * 100) / 100;

/**
 * Where the line itself turned from chord to chord, by kind of change: tick the median, bar the spread; right
 * is late.
 */
export function TurningBoard({ report }: Pick<Props, 'report'>) {
  const rows = [...report.turnings]
    .sort((a, b) => Math.abs(b.medianBeats) - Math.abs(a.medianBeats))
    .slice(0, 10);
  if (rows.length === 0) return null;
  const reach = Math.max(
    1,
    ...rows.map(({ medianBeats, spreadBeats }) => Math.abs(medianBeats) + spreadBeats),
  );
  const x = (beats: number) => 262 + (beats / reach) * 140;
  return (
    <Board
      name="When you played the new chord"
      facts="in beats against the change; left early, right late"
      table={{
        caption: 'Where the line turned',
        head: ['Change', 'Times', 'Median, beats', 'Spread, beats'],
        rows: rows.map(({ change, count, medianBeats, spreadBeats }) => [
          typeset(change.replace('→', ' to ')),
          count,
          round(medianBeats),
          round(spreadBeats),
        ]),
      }}
    >
      <svg
        viewBox={`0 0 416 ${rows.length * 26 + 6}`}
        className="mt-2 w-full"
        role="img"
        aria-label="Where the line turned; the table says the same"
      >
        <line x1={x(0)} y1={0} x2={x(0)} y2={rows.length * 26} stroke="var(--dim)" strokeDasharray="2 4" />
        {rows.map(({ change, medianBeats, spreadBeats }, place) => (
          <g key={change} transform={`translate(0 ${place * 26})`}>
            <text x={0} y={18} fontSize={14}>
              {typeset(change.replace('→', ' to '))}
            </text>
            <rect
              x={x(medianBeats - spreadBeats)}
              y={8}
              width={Math.max(2, x(medianBeats + spreadBeats) - x(medianBeats - spreadBeats))}
              height={10}
              fill="var(--h3)"
            />
            <line
              x1={x(medianBeats)}
              y1={4}
              x2={x(medianBeats)}
              y2={22}
              stroke="var(--h0)"
              strokeWidth={3.5}
            />
          </g>
        ))}
      </svg>
    </Board>
  );
}

/**
 * What was counted beside: missed resolutions, blue thirds, chords and line, and where the
 * place was lost. Each can be heard.
 */
export function RestBoard({ report, timeline, onHear }: Props) {
  const { missedDoors, thirds, handovers, place } = report;
  const hear = (beat: number) => (
    <button
      type="button"
      className="font-[580] text-now hover:underline"
      onClick={() => onHear(Math.max(0, beat - 2))}
    >
      {placeText(timeline, beat)}
    </button>
  );
  const parts = [
    missedDoors.length > 0 && (
      <Part
        key="missed"
        name="Missed resolutions"
        words="a half step from the old chord’s third or seventh into the new chord lay within reach and was not taken"
      >
        {missedDoors.slice(0, 8).map((missed) => {
          const change = elementAt(report.changes, missed.changeIndex);
          return (
            <li key={missed.changeIndex}>
              {hear(change.beat)}: {nameOver(change.from, missed.fromMidi)}{' '}
              {intervalLabel(missed.fromInterval)} to {nameOver(change.to, missed.toMidi)}{' '}
              {intervalLabel(missed.toInterval)} of {typeset(change.to)}
            </li>
          );
        })}
      </Part>
    ),
    thirds.length > 0 && (
      <Part key="thirds" name="Thirds" words="how high the blue thirds were, in cents over the minor third">
        {thirds.slice(0, 8).map((third) => (
          <li key={third.noteIndex}>
            {hear(third.beat)}: {Math.round(third.cents)} over {typeset(third.chord)}
            {Math.abs(third.moved) > 15 ? `, moved by ${Math.round(third.moved)}` : ''}
          </li>
        ))}
      </Part>
    ),
    handovers.length > 0 && (
      <Part key="handovers" name="Chords and line" words="where you went from one to the other">
        {handovers.slice(0, 8).map((one) => (
          <li key={one.beat}>
            {hear(one.beat)}: to {one.to},{' '}
            {Math.abs(one.lateBeats) < 0.1
              ? 'on the bar'
              : `${beatsWord(Math.abs(one.lateBeats))} ${one.lateBeats > 0 ? 'late' : 'early'}`}
            {intoChordsWords(report, one)}
          </li>
        ))}
      </Part>
    ),
    place.length > 0 && (
      <Part key="place" name="Lost and found" words="where the line fits the chart only moved">
        {place.map((one) => (
          <li key={one.fromBeat}>
            {hear(one.fromBeat)} to {placeText(timeline, one.toBeat).toLowerCase()}:{' '}
            {beatsWord(Math.abs(one.lagBeats))} {one.lagBeats > 0 ? 'behind' : 'ahead'}
          </li>
        ))}
      </Part>
    ),
  ].filter(Boolean);
  if (parts.length === 0) return null;
  return (
    <section aria-label="And also" className="grid gap-5 sm:grid-cols-2">
      {parts}
    </section>
  );
}

function Part({ name, words, children }: { name: string; words: string; children: React.ReactNode }) {
  return (
    <div>
      <h2 className="text-base font-[640]">{name}</h2>
      <p className="text-[15px] text-dim">{words}</p>
      <ul className="mt-1 text-[15px] leading-6">{children}</ul>
    </div>
  );
}
