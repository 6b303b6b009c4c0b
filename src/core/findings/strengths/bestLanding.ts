import { noteName, readChord, spellOver } from '../../music';
import { unwrap } from '../../shared';
import { landedOn, pcAt } from '../kinds/landed';
import { throughBar } from '../bars';
import { defineStrength } from '../strength';
import { intervalWord, typeset } from '../../music';

type Facts = {
  readonly note: string;
  readonly tone: string;
  readonly chord: string;
  readonly bar: number;
  readonly isLed: boolean;
};

const TELLING = ['3', 'b3', '7', 'b7', '6'];

/** What is true of nearly every take: its best landing. */
export const bestLanding = defineStrength<Facts>({
  id: 'best-landing',
  detect: (context) => {
    const led = new Set(context.report.figures.map(({ targetIndex }) => targetIndex));
    const [best] = landedOn(context)
      .filter(({ landing }) => landing.verdict === 'target' || landing.verdict === 'chord-tone')
      .map((change) => {
        const { landing, connection } = change;
        const worth =
          (landing.verdict === 'target' ? 2 : 0) +
          (TELLING.includes(landing.interval ?? '') ? 2 : 0) +
          (landing.timing === 'on' || landing.timing === 'early' ? 1 : 0) +
          (led.has(landing.noteIndex) ? 1 : 0) +
          (connection.kind === 'step' ? 0.5 : 0);
        return { change, worth };
      })
      .sort((a, b) => b.worth - a.worth || a.change.beat - b.change.beat);
    if (!best) return null;
    const { landing, to } = best.change;
    const bar = throughBar(context, best.change);
    const pc = pcAt(context, landing.noteIndex);
    return {
      bar,
      score: 0.1,
      facts: {
        note: noteName(spellOver(unwrap(readChord(to)), pc)),
        tone: intervalWord(landing.interval ?? '1'),
        chord: to,
        bar,
        isLed: led.has(landing.noteIndex),
      },
    };
  },
  say: ({ note, tone, chord, bar, isLed }) =>
    `In bar ${bar} you landed on ${typeset(note)}, the ${tone} of ${typeset(chord)}${isLed ? ', and led into it by step' : ''}.`,
  examples: [
    { note: 'D', tone: 'third', chord: 'Bb7', bar: 5, isLed: false },
    { note: 'F#', tone: 'third', chord: 'D7', bar: 2, isLed: true },
    { note: 'Eb', tone: 'root', chord: 'Ebmaj7', bar: 1, isLed: false },
  ],
});
