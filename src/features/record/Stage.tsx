import { harmonyOf, timelineOf, type Chart } from '@/core/chart';
import { noteName, spellOver, type Chord } from '@/core/music';
import { planOf, type PlanChoice } from '@/core/plan';
import { intervalWord, typeset } from '@/core/practise';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { FormRow } from '@/ui/form/FormRow';
import { HEAD, LANE } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import { Neck } from '@/ui/Neck';
import { nowPlaying, type NowPlaying } from './nowPlaying';

type Props = { chart: Chart; tempo: number; choruses: number; plan: PlanChoice; beat: number };

/** The screen while playing: one sentence on one baseline, the neck, and the form with its cursor. */
export function Stage({ chart, tempo, choruses, plan: choice, beat }: Props) {
  const timeline = timelineOf(chart, tempo);
  const plan = planOf(choice, harmonyOf(chart, timeline));
  const now = nowPlaying(timeline, plan, beat);
  const rows = formRows(timeline);
  const row = rows.find((one) => one.bars.some((bar) => bar.number === now.bar + 1)) ?? rows[0]!;
  return (
    <div className="mx-4 flex grow flex-col gap-6 sm:mx-8">
      <Sentence now={now} />
      <div className="grid gap-6 lg:grid-cols-[408px_minmax(0,1fr)] lg:gap-[72px]">
        <Whereabouts now={now} bars={timeline.bars.length} choruses={choruses} />
        <div className="mx-auto w-full max-w-[736px]"><NeckNow now={now} /></div>
      </div>
      <svg viewBox={`0 0 1216 ${HEAD + LANE}`} className="mt-auto mb-4 hidden w-full sm:block" aria-hidden="true">
        <FormRow row={row} width={1216} formBeats={timeline.formBeats} choruses={[now.chorus]} take={null} cursor={Math.max(0, beat)} />
      </svg>
    </div>
  );
}

/** Fits a long symbol into its column. */
const fitted = (symbol: string, size: number, room: number): string => `min(${size}px, ${(size / 12.8).toFixed(1)}vw, ${Math.round(room / chordWidth(symbol))}px)`;

function Sentence({ now }: { now: NowPlaying }) {
  const { countIn, landOn } = now;
  const shown = countIn !== null ? String(countIn) : null;
  return (
    <div className="flex min-h-[236px] flex-wrap items-end gap-x-[5.5vw] gap-y-4 pt-2 leading-none font-[640] tracking-tight" aria-live="off">
      <Word label={shown ? 'count-in' : 'now'} wide>
        <span className={shown ? 'text-now' : ''} style={{ fontSize: shown ? 'min(256px, 20vw)' : fitted(now.now?.symbol ?? 'N.C.', 256, 430) }} data-testid="chord-now">
          {shown ?? <Named chord={now.now} />}
        </span>
        <BeatBar now={now} />
      </Word>
      <div className="flex items-end gap-x-[2vw]">
        <Word label={shown ? 'then' : 'beats until'}>{shown ? null : <span className="text-now" style={{ fontSize: 'min(168px, 13vw)' }}>{now.beatsUntil}</span>}</Word>
        <Word label={shown ? 'first' : 'next'}><span className="text-soft" style={{ fontSize: fitted(now.next?.symbol ?? 'N.C.', 168, 290) }} data-testid="chord-next"><Named chord={now.next} /></span></Word>
      </div>
      {landOn && !shown && (
        <div className="ml-auto flex items-end gap-4">
          <Word label="land on"><span style={{ fontSize: 'min(256px, 18vw)' }}>{typeset(landOn.name)}</span></Word>
          <p className="pb-2 text-[28px] leading-9 font-normal tracking-normal text-soft">its {intervalWord(landOn.interval)},<br />{moveWords(landOn.from.semitones)}<br /><b className="text-ink">{typeset(landOn.from.name)}</b></p>
        </div>
      )}
    </div>
  );
}

function moveWords(semitones: number): string {
  const size = ['the note you hear as', 'a half step', 'a whole step', 'a minor third', 'a major third', 'a fourth', 'a tritone'][Math.abs(semitones)] ?? `${Math.abs(semitones)} half steps`;
  return semitones === 0 ? size : `${size} ${semitones > 0 ? 'above' : 'below'}`;
}

const Named = ({ chord }: { chord: Chord | null }) => (chord ? <ChordSymbol symbol={chord.symbol} /> : <>N.C.</>);

function Word({ label, wide = false, children }: { label: string; wide?: boolean; children: React.ReactNode }) {
  return (
    <div className={wide ? 'min-w-[min(430px,70vw)]' : ''}>
      <p className="mb-2 text-[17px] leading-6 font-normal tracking-normal text-dim">{label}</p>
      {children}
    </div>
  );
}

/** The beats of the bar: past, present, to come; the present one also stands taller. */
function BeatBar({ now }: { now: NowPlaying }) {
  return (
    <div className="mt-4 flex h-3 max-w-[408px] items-end gap-2" aria-hidden="true">
      {Array.from({ length: now.beats }, (_, beat) => {
        const present = now.countIn === null && beat === now.beat;
        return <i key={beat} className={`flex-1 ${present ? 'h-3 bg-now' : now.countIn === null && beat < now.beat ? 'h-2.5 bg-soft' : 'h-2.5 bg-line'}`} />;
      })}
    </div>
  );
}

function Whereabouts({ now, bars, choruses }: { now: NowPlaying; bars: number; choruses: number }) {
  return (
    <div className="text-[28px] leading-10 text-soft">
      <b className="text-ink" data-testid="chorus">Chorus {Math.min(now.chorus + 1, choruses)} of {choruses}</b><br />
      <span data-testid="bar">bar {now.bar + 1} of {bars}</span>
      <div className="mt-3 flex gap-1" aria-hidden="true">
        {Array.from({ length: bars }, (_, bar) => <i key={bar} className={`h-2.5 flex-1 ${bar < now.bar ? 'bg-soft' : bar === now.bar ? 'bg-now' : 'bg-line'}`} />)}
      </div>
    </div>
  );
}

function NeckNow({ now }: { now: NowPlaying }) {
  const tones = now.now?.tones.map((tone) => tone.pc) ?? [];
  const targets = now.landOn ? [now.landOn.pc] : [];
  const nameOf = (pc: number) => typeset(noteName(spellOver((targets.includes(pc) ? now.next : now.now) ?? now.next!, pc)));
  return now.now || now.next ? <Neck from={5} to={9} tones={tones} targets={targets} nameOf={nameOf} /> : null;
}
