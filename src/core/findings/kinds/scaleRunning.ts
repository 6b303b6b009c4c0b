import { defineKind } from '../measure';
import { share } from '../words';

const LONG_RUN = 5;
const ENOUGH_NOTES = 24;

/** Long runs up and down the scale. */
export const scaleRunning = defineKind<Record<string, never>>({
  id: 'scale-running',
  name: 'scale runs',
  hides: ['no-approaches'],
  contradicts: ['leaps-only', 'outline-only'],
  drill: 'arpeggios',
  detect: ({ report }) => {
    const running = new Set(
      report.shapes
        .filter(({ kind, noteIndices }) => kind === 'scale-run' && noteIndices.length >= LONG_RUN)
        .flatMap(({ noteIndices }) => noteIndices),
    );
    const of = report.notes.filter((note) => note.top && note.function !== 'grace').length;
    if (of < ENOUGH_NOTES) return [];
    return [{ where: { bars: [] }, met: of - running.size, of, limit: 0.65, worth: 0.9, facts: {} }];
  },
  say: ({ missed, of }) => ({
    title: 'Out of the scale run',
    sentence: `You ran up or down the scale for ${share(missed, of, 'note')}.`,
    advice: 'Turn or skip after four notes at most.',
  }),
  example: {},
});
