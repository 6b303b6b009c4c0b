import { present } from '../../shared';
import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { landedOn } from './landed';

/** Landings that nothing led into. */
export const noApproaches = defineKind<Record<string, never>>({
  id: 'no-approaches',
  name: 'no approaches',
  drill: 'target-from-below',
  detect: (context) => {
    const { figures, notes } = context.report;
    const led = new Set(figures.map(({ targetIndex }) => targetIndex));
    const line = notes.filter((note) => note.top && note.function !== 'grace');
    // a note that passes into the landing by step leads as well
    line.forEach((note, place) => {
      const next = line[place + 1];
      const isStep = next !== undefined && Math.abs(next.midi - note.midi) <= 2.5;
      if (next && isStep && note.tier !== 'chord' && note.function === 'passing') led.add(next.index);
    });
    const all = landedOn(context).filter(
      ({ landing, connection }) =>
        landing.timing !== 'held' && connection.kind !== 'fresh' && connection.kind !== null,
    );
    const missed = all.filter(({ landing }) => !led.has(present(landing.noteIndex)));
    return [
      {
        where: { bars: missed.map((change) => throughBar(context, change)) },
        met: all.length - missed.length,
        of: all.length,
        rests: restingOnLandings(all, missed),
        limit: 0.25,
        worth: 0.3,
        facts: {},
      },
    ];
  },
  say: ({ met, of }) => ({
    title: 'Leading into the change',
    sentence:
      met === 0
        ? `In ${of} landings no note led into the target from beside it.`
        : `A note beside the target led into it in ${met} of ${of} landings.`,
    advice: 'Play the note a half step below the target first.',
  }),
  example: {},
});
