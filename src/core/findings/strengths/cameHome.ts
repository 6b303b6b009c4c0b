import { elementAt } from '../../shared';
import { intervalWord } from '../../music';
import { barAt } from '../bars';
import { defineStrength } from '../strength';

type Facts = { readonly tone: string; readonly bar: number };

/** The last phrase comes home and stays there. */
export const cameHome = defineStrength<Facts>({
  id: 'came-home',
  detect: (context) => {
    const { phrases, notes } = context.report;
    const last = phrases[phrases.length - 1];
    if (!last || last.end !== 'home' || last.endInterval === null || phrases.length < 2) return null;
    const note = elementAt(notes, elementAt(last.noteIndices, last.noteIndices.length - 1));
    const bar = barAt(context, note.onsetBeat);
    return { bar, score: 0.5, facts: { tone: intervalWord(last.endInterval), bar } };
  },
  say: ({ tone, bar }) => `Your last phrase came home to the ${tone} in bar ${bar}.`,
  examples: [
    { tone: 'root', bar: 12 },
    { tone: 'third', bar: 31 },
    { tone: 'fifth', bar: 1 },
  ],
});
