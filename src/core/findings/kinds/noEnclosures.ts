import { counted } from '../words';
import { defineKind } from '../measure';
import { times } from '../../music';

/** Targets are hardly ever enclosed from both sides. */
export const noEnclosures = defineKind<Record<string, never>>({
  id: 'no-enclosures',
  name: 'no enclosures',
  drill: 'enclosures',
  detect: ({ report }) => {
    const of = report.changes.filter(
      ({ landing, connection }) => landing.noteIndex !== null && connection.kind !== 'fresh',
    ).length;
    const met = report.figures.filter(({ kind }) => kind === 'enclosure').length;
    return [{ where: { bars: [] }, met: Math.min(met, of), of, limit: 0.06, worth: 0.04, facts: {} }];
  },
  say: ({ met, of }) => ({
    title: 'Enclosures',
    sentence: `You ${met === 0 ? 'never enclosed a target' : `enclosed a target ${times(met)}`} in ${counted(of, 'change')}.`,
    advice: 'Play the note above, the note below, then the target.',
  }),
  example: {},
});
