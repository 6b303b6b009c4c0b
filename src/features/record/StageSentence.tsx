import { intervalWord, typeset } from '@/core/music';
import { type Chord } from '@/core/music';
import { type LandOn } from '@/core/plan';
import { present } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText, chordWidth } from '@/ui/chordParts';
import { type NowPlaying } from '@/ui/stage/nowPlaying';
/** Fits a long symbol into its column. */
export const fitted = (symbol: string, size: number, room: number): number =>
  Math.min(size, room / chordWidth(symbol));

/**
 * One baseline, left to right: the chord, beats until the next, the next, and the note to land on. On a phone
 * they stand in two rows.
 */
export function Sentence({ now, named }: { now: NowPlaying; named: boolean }) {
  return (
    <div aria-live="off">
      <p className="sr-only">
        {named && (
          <>
            <span data-testid="chord-now">{chordName(now.now)}</span>, next{' '}
            <span data-testid="chord-next">{chordName(now.next)}</span>
          </>
        )}
      </p>
      <svg viewBox="0 0 1216 276" className="hidden w-full sm:block" aria-hidden="true">
        <g transform="translate(0 -6)">
          {named ? <WideSentence now={now} /> : <Count now={now} size={256} y={232} width={1216} />}
        </g>
      </svg>
      <svg viewBox="0 0 358 356" className="w-full sm:hidden" aria-hidden="true">
        {named ? <PhoneSentence now={now} /> : <Count now={now} size={172} y={140} width={358} />}
      </svg>
    </div>
  );
}

export const chordName = (chord: Chord | null): string => (chord ? chordText(chord.symbol) : 'N.C.');

export const symbolOf = (chord: Chord | null): string => chord?.symbol ?? 'N.C.';

export function Label({ x, y, text }: { x: number; y: number; text: string }) {
  return (
    <text x={x} y={y} fontSize={17} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
}

export function Numeral({ x, y, size, value }: { x: number; y: number; size: number; value: number }) {
  return (
    <text x={x} y={y} fontSize={size} fontWeight={640} style={{ fill: 'var(--now)' }}>
      {value}
    </text>
  );
}

export function WideSentence({ now }: { now: NowPlaying }) {
  const { countIn, landOn: aim } = now;
  const counting = countIn !== null;
  return (
    <>
      <Label x={0} y={30} text={counting ? 'count-in' : 'now'} />
      {counting ? (
        <Numeral x={-9} y={232} size={256} value={countIn} />
      ) : (
        <ChordSvg x={-9} y={232} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 256, 468)} />
      )}
      {!counting && <Label x={488} y={94} text="beats until" />}
      {!counting && <Numeral x={482} y={232} size={now.beatsUntil > 9 ? 100 : 168} value={now.beatsUntil} />}
      <Label x={624} y={94} text={counting ? 'first' : 'next'} />
      <ChordSvg
        x={612}
        y={232}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 168, 262)}
        fill="var(--soft)"
      />
      {aim && !counting && <Aim aim={aim} />}
      <BeatBar now={now} x={0} y={264} width={408} />
    </>
  );
}

export function Aim({ aim }: { aim: LandOn }) {
  return (
    <>
      <Label x={896} y={30} text="land on" />
      <ChordSvg x={888} y={232} symbol={aim.name} size={fitted(aim.name, 256, 178)} />
      {[`its ${intervalWord(aim.interval)},`, moveWords(aim.from.semitones)].map((words, line) => (
        <text key={words} x={1072} y={160 + line * 36} fontSize={26} style={{ fill: 'var(--soft)' }}>
          {words}
        </text>
      ))}
      <text x={1072} y={232} fontSize={26} style={{ fill: 'var(--soft)' }}>
        {sideWords(aim.from.semitones)}{' '}
        <tspan fontWeight={640} style={{ fill: 'var(--ink)' }}>
          {typeset(aim.from.name)}
        </tspan>
      </text>
    </>
  );
}

export function PhoneSentence({ now }: { now: NowPlaying }) {
  const counting = now.countIn !== null;
  return (
    <>
      {counting ? (
        <Numeral x={-4} y={140} size={172} value={present(now.countIn)} />
      ) : (
        <ChordSvg x={-4} y={140} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 172, 350)} />
      )}
      <BeatBar now={now} x={0} y={174} width={358} />
      {!counting && (
        <>
          <Label x={0} y={222} text="beats" />
          <Numeral x={-2} y={326} size={now.beatsUntil > 9 ? 80 : 112} value={now.beatsUntil} />
        </>
      )}
      <Label x={96} y={222} text={counting ? 'first' : 'next'} />
      <ChordSvg
        x={94}
        y={326}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 112, 140)}
        fill="var(--soft)"
      />
      {now.landOn && !counting && (
        <>
          <Label x={250} y={222} text="land on" />
          <ChordSvg x={248} y={326} symbol={now.landOn.name} size={fitted(now.landOn.name, 112, 108)} />
        </>
      )}
    </>
  );
}

export function moveWords(semitones: number): string {
  return (
    ['the note', 'a half step', 'a whole step', 'a minor third', 'a major third', 'a fourth', 'a tritone'][
      Math.abs(semitones)
    ] ?? `${Math.abs(semitones)} half steps`
  );
}

export const sideWords = (semitones: number): string => {
  if (semitones === 0) return 'you have:';
  if (semitones > 0) return 'above';
  return 'below';
};

/** Nothing but the beat of the bar: the chord is for the ear. */
export function Count({ now, size, y, width }: { now: NowPlaying; size: number; y: number; width: number }) {
  const wide = width > 1000;
  return (
    <>
      <Label x={0} y={wide ? 30 : 16} text={now.countIn === null ? 'beat' : 'count-in'} />
      <Numeral x={-9} y={y} size={size} value={now.countIn ?? now.beat + 1} />
      {wide && now.countIn === null && (
        <>
          <Label x={488} y={94} text="beats until the next chord" />
          <Numeral x={482} y={232} size={168} value={now.beatsUntil} />
        </>
      )}
      <BeatBar now={now} x={0} y={y + 32} width={wide ? 408 : 358} />
    </>
  );
}
/** The beats of the bar: past, present, to come; the present one also stands taller. */
export function BeatBar({ now, x, y, width }: { now: NowPlaying; x: number; y: number; width: number }) {
  const each = (width + 8) / now.beats;
  return (
    <>
      {Array.from({ length: now.beats }, (_, beat) => {
        const present = now.countIn === null && beat === now.beat;
        const past = now.countIn === null && beat < now.beat;
        return (
          <rect
            key={beat}
            x={x + beat * each}
            y={y - (present ? 3 : 0)}
            width={each - 8}
            height={present ? 13 : 10}
            fill={dotFill(present, past)}
          />
        );
      })}
    </>
  );
}

function dotFill(present: boolean, past: boolean) {
  if (present) return 'var(--now)';
  if (past) return 'var(--soft)';
  return 'var(--line)';
}
