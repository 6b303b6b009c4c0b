import { hasTone, readChord } from '../../music';
import { elementAt, unwrap } from '../../shared';
import { barAt } from '../bars';
import { defineKind } from '../measure';
import type { FindingContext } from '../finding';
import { share } from '../words';
import { pcAt } from './landed';

/** The chord under a hit, and the hit's notes. */
function hitsOf({ report }: FindingContext) {
  return report.events.flatMap((event) => {
    const chord = elementAt(report.notes, elementAt(event.noteIndices, 0)).chord;
    return event.kind === 'chord' && chord !== null
      ? [{ chord: unwrap(readChord(chord)), onsetBeat: event.onsetBeat, noteIndices: event.noteIndices }]
      : [];
  });
}

/** Chord hits with a tone that is neither of the chord nor a colour of it. */
export const chordHitWrong = defineKind<Record<string, never>>({
  id: 'chord-hit-wrong',
  name: 'chord hits off',
  drill: 'chords-and-line',
  detect: (context) => {
    const hits = hitsOf(context);
    const wrong = hits.filter(({ chord, noteIndices }) => {
      const strange = noteIndices.filter(
        (index) =>
          !hasTone(chord, pcAt(context, index)) && elementAt(context.report.notes, index).tier !== 'colour',
      );
      return strange.length * 2 >= noteIndices.length;
    });
    return [
      {
        where: { bars: wrong.map(({ onsetBeat }) => barAt(context, onsetBeat)) },
        met: hits.length - wrong.length,
        of: hits.length,
        limit: 0.7,
        worth: 0.8,
        facts: {},
      },
    ];
  },
  say: ({ missed, of, inBars }) => ({
    title: 'Hits that match',
    sentence: `You hit another chord than the chart’s in ${share(missed, of, 'hit')}${missed > 0 ? inBars : ''}.`,
    advice: 'Hit only the third and the seventh of each chord.',
  }),
  example: {},
});
