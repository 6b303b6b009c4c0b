import { hasTone, readChord } from '../../music';
import { unwrap, present, elementAt } from '../../shared';
import { homeScaleOnly } from './coverage';
import { barAt, ENOUGH, measure, throughBar, type FindingContext, type Measure } from './finding';
import { stillOnOldChord } from './landings';

const LOST_BARS = 4;
const MOST_OF = 0.7;

/** Four bars or more over which the line fits the chart better earlier or later. */
export function lostPlace(context: FindingContext): Measure[] {
  const { report, timeline } = context;
  const lost = report.place.filter(
    ({ fromBeat, toBeat }) => barAt(context, toBeat - 0.01) - barAt(context, fromBeat) + 1 >= LOST_BARS,
  );
  if (lost.length === 0) return [];
  // a line that fits nowhere in particular, or runs behind throughout, is not lost
  const bars = lost.flatMap(({ fromBeat, toBeat }) =>
    Array.from(
      { length: barAt(context, toBeat - 0.01) - barAt(context, fromBeat) + 1 },
      (_, index) => barAt(context, fromBeat) + index,
    ),
  );
  const all = report.summary.choruses * timeline.bars.length;
  if (Math.abs(report.time.lagBeats) >= 0.5 || bars.length > MOST_OF * all || isHabit(context, bars))
    return [];
  const [first] = lost;
  const met = Math.max(0, all - bars.length);
  return measure(context, {
    kind: 'lost-place',
    where: { bars },
    met,
    of: all,
    limit: 1,
    raised: true,
    title: 'Where you are in the form',
    sentence: `From bar ${bars[0]} your line fitted the chart ${Math.abs(Math.round(present(first).lagBeats))} beats ${present(first).lagBeats > 0 ? 'earlier' : 'later'}; you found it again after bar ${bars[bars.length - 1]}.`,
    drill: { target: 'the root of every fourth bar, sung aloud', pass: 'two choruses without losing it' },
    weight: 3,
  });
}

const LATE_BEATS = 0.5;
const GAP_BEATS = 2;

/**
 * Between chords and line: the new kind comes in more than half a beat after its bar line, or the music stops
 * for two beats.
 */
export function handoverLate(context: FindingContext): Measure[] {
  const { handovers } = context.report;
  const late = handovers.filter(
    ({ lateBeats, gapBeats }) => (lateBeats > LATE_BEATS && gapBeats >= LATE_BEATS) || gapBeats >= GAP_BEATS,
  );
  return measure(context, {
    kind: 'handover-late',
    where: { bars: late.map(({ bar }) => bar) },
    met: handovers.length - late.length,
    of: handovers.length,
    limit: 0.7,
    worth: 0.8,
    title: 'Between chords and line',
    sentence: `${late.length} of ${handovers.length} times you came in late after going from chords to line or back.`,
    drill: { target: 'one bar of chords, one bar of line', pass: 'the first note on its beat in 10 of 12' },
  });
}

/**
 * What the player does outside the lost bars too is a habit, no loss: a line of the home scale tells no chord,
 * and tones of the old chord at every change look like a bar behind.
 */
function isHabit(context: FindingContext, lost: readonly number[]): boolean {
  if (homeScaleOnly(context).some(({ raised }) => raised)) return true;
  const inside = new Set(lost);
  return stillOnOldChord(context, (change) => !inside.has(throughBar(context, change))).some(
    ({ met, of }) => of >= ENOUGH && met / of < 0.65,
  );
}

/** Chord hits with a tone that is neither of the chord nor a colour of it. */
export function chordHitWrong(context: FindingContext): Measure[] {
  const { report } = context;
  const hits = report.events.filter(
    (event) =>
      event.kind === 'chord' && present(report.notes[elementAt(event.noteIndices, 0)]).chord !== null,
  );
  const wrong = hits.filter((event) => {
    const chord = unwrap(readChord(present(present(report.notes[elementAt(event.noteIndices, 0)]).chord)));
    const strange = event.noteIndices.filter((index) => {
      const pc = ((Math.round(elementAt(report.notes, index).midi) % 12) + 12) % 12;
      return !hasTone(chord, pc) && elementAt(report.notes, index).tier !== 'colour';
    });
    return strange.length * 2 >= event.noteIndices.length;
  });
  return measure(context, {
    kind: 'chord-hit-wrong',
    where: { bars: wrong.map((event) => barAt(context, event.onsetBeat)) },
    met: hits.length - wrong.length,
    of: hits.length,
    limit: 0.7,
    worth: 0.8,
    title: 'Hits that match',
    sentence: `${wrong.length} of ${hits.length} chord hits were not the chord of the chart.`,
    drill: { target: 'third and seventh of each chord', pass: '10 of 12 hits match' },
  });
}
