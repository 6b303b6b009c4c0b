import { noteName, type Chord } from '../../music';
import { elementAt, present } from '../../shared';
import type { Counted, FindingContext } from '../finding';
import { defineKind } from '../measure';
import { listed } from '../words';
import { typeset } from '../../music';

type Facts = {
  /** Notes that the home scale lacks, each with the chord that has it. */
  readonly lacks: readonly { readonly note: string; readonly chord: string }[];
};

const MOST_NAMED = 3;

/** The home scale alone, over chords that ask for more. */
export function detectHomeScaleOnly({ report, harmony, plan }: FindingContext): Counted<Facts>[] {
  if (['home-scale', 'major-minor-blend', 'free'].includes(plan.id)) return [];
  const homes = new Map<string, { readonly chord: Chord; readonly home: readonly number[] }>(
    harmony.readings.flatMap((reading, index) =>
      reading
        ? [
            [
              reading.chord.symbol,
              { chord: reading.chord, home: elementAt(harmony.homeScales, index).pcs },
            ] as const,
          ]
        : [],
    ),
  );
  const asking = report.notes.filter((note) => {
    const here = note.function !== 'grace' && note.chord !== null ? homes.get(note.chord) : undefined;
    return here?.chord.tones.some(({ pc }) => !here.home.includes(pc));
  });
  const beyond = asking.filter(
    ({ chord, midi }) =>
      !present(homes.get(present(chord))).home.includes(((Math.round(midi) % 12) + 12) % 12),
  );
  return [
    {
      where: { bars: [] },
      met: beyond.length,
      of: asking.length,
      limit: 0.06,
      worth: 1,
      facts: { lacks: lackedTones([...homes.values()]) },
    },
  ];
}

/** For each chord the tone it is best told by among those that the home scale lacks: third, seventh, another. */
const lackedTones = (homes: readonly { readonly chord: Chord; readonly home: readonly number[] }[]) =>
  homes.flatMap(({ chord, home }) => {
    const lacked = chord.tones.filter(({ pc }) => !home.includes(pc));
    const best =
      lacked.find(({ role }) => role === 'third') ??
      lacked.find(({ role }) => role === 'seventh') ??
      lacked[0];
    return best ? [{ note: noteName(best.note), chord: chord.symbol }] : [];
  });

/** One scale over everything. */
export const homeScaleOnly = defineKind<Facts>({
  id: 'home-scale-only',
  name: 'the home scale only',
  hides: ['change-ignored', 'target-missed', 'targets-missed', 'tone-missed', 'tone-never-played'],
  drill: 'home-tell-tale',
  detect: detectHomeScaleOnly,
  say: ({ met, facts: { lacks } }) => {
    const named = lacks
      .slice(0, MOST_NAMED)
      .map(({ note, chord }) => `${typeset(note)} over ${typeset(chord)}`);
    return {
      title: 'Beyond the home scale',
      sentence: `You played ${met === 0 ? 'one scale' : 'nearly one scale'} over everything.`,
      detail: `It lacks ${named.length === 1 ? 'the note that tells the chord' : 'the notes that tell the chords'}: ${listed(named)}.`,
      advice: `Play ${named[0] ?? 'one note that your scale lacks'}, each time it comes.`,
    };
  },
  example: {
    lacks: [
      { note: 'G', chord: 'Eb7' },
      { note: 'A', chord: 'F7' },
      { note: 'B', chord: 'G7' },
    ],
  },
});
