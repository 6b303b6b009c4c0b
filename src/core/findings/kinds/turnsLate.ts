import { defineKind } from '../measure';
import { beatsInWords } from '../words';
import { times } from '../../music';
import { turnings, type TurningFacts } from './turning';

/** The whole line reaches each chord late. */
export const turnsLate = defineKind<TurningFacts>({
  id: 'turns-late',
  name: 'turns late',
  hides: [
    'still-on-old-chord',
    'target-missed',
    'targets-missed',
    'tone-missed',
    'landing-late',
    'no-approaches',
  ],
  contradicts: ['turns-early'],
  drill: 'anticipate',
  detect: (context) => turnings(context, 'late'),
  say: ({ missed, of, facts: { by } }) => ({
    title: 'Turning with the chord',
    sentence: `You reach the new chord about ${beatsInWords(by)} late, ${times(missed)} in ${of}.`,
    advice: 'Think of the next chord a beat before it comes.',
  }),
  example: { by: 1 },
});
