import type { Beats, Midi } from '@/core/shared';

/** A note of an example: when, how long, which. Chords are notes at one time. */
export type ExampleNote = readonly [onset: Beats, duration: Beats, midi: Midi];

/** A musical term of the screens, for a player who meets it for the first time. */
export type MusicalTerm = {
  readonly name: string;
  /** As it stands on the screens. */
  readonly words: readonly string[];
  readonly what: string;
  readonly why: string;
  /** What it sounds like, at 90 beats a minute; null where there is nothing to hear. */
  readonly example: readonly ExampleNote[] | null;
};

const chord = (onset: Beats, duration: Beats, ...pitches: readonly Midi[]): ExampleNote[] =>
  pitches.map((midi) => [onset, duration, midi]);
const line = (onset: Beats, each: Beats, ...pitches: readonly Midi[]): ExampleNote[] =>
  pitches.map((midi, index) => [onset + index * each, each, midi]);

const C7 = [48, 52, 58] as const;
const F7 = [41, 51, 57] as const;
const DM7 = [50, 53, 60] as const;
const G7 = [43, 53, 59] as const;
const CMAJ7 = [48, 52, 59] as const;

/** Every term, in the order in which a player meets them. */
export const MUSICAL_TERMS: readonly MusicalTerm[] = [
  {
    name: 'Form and chorus',
    words: ['form', 'chorus', 'choruses'],
    what: 'The form is the chords of a tune once through. Each time through is a chorus.',
    why: 'A solo is built chorus by chorus, so what you played is shown that way.',
    example: null,
  },
  {
    name: 'Change',
    words: ['change', 'changes'],
    what: 'The moment a new chord begins.',
    why: 'What you play there tells most whether you hear the chords.',
    example: [...chord(0, 2, ...C7), ...chord(2, 2, ...F7)],
  },
  {
    name: 'Chord tone',
    words: ['chord tone', 'chord tones'],
    what: 'A note that the chord itself holds: root, third, fifth, seventh.',
    why: 'A line that rests on chord tones sounds at home, even without the band.',
    example: [...chord(0, 4, ...C7), ...line(0, 1, 60, 64, 67, 70)],
  },
  {
    name: 'Third and seventh',
    words: ['third', 'thirds', 'seventh', 'sevenths', 'guide tones'],
    what: 'The two notes that say which kind of chord it is. They are also called guide tones.',
    why: 'From chord to chord they move by a fret or stay: follow them and the changes are heard.',
    example: [...chord(0, 2, 48), ...chord(0, 2, 64, 70), ...chord(2, 2, 41), ...chord(2, 2, 63, 69)],
  },
  {
    name: 'Thread',
    words: ['thread'],
    what: 'Thirds and sevenths joined from chord to chord by the smallest moves.',
    why: 'It is the simplest line that tells every change.',
    example: [
      ...chord(0, 2, ...DM7),
      ...chord(2, 2, ...G7),
      ...chord(4, 2, ...CMAJ7),
      ...line(0, 2, 72, 71, 71),
    ],
  },
  {
    name: 'Landing',
    words: ['landing', 'landings', 'land', 'lands', 'landed'],
    what: 'The note that meets a new chord, on its beat or just before it.',
    why: 'Landing on the chord’s third or seventh makes the change heard.',
    example: [...chord(0, 2, ...C7), ...chord(2, 2, ...F7), ...line(0, 0.5, 67, 65, 64, 70), [2, 2, 69]],
  },
  {
    name: 'Target',
    words: ['target', 'targets'],
    what: 'A note your plan wants you to land on.',
    why: 'One clear aim at a time is learnt faster than everything at once.',
    example: null,
  },
  {
    name: 'Approach',
    words: ['approach', 'approaches'],
    what: 'A note one or two frets away that leads into the next one.',
    why: 'It makes a landing sound meant.',
    example: [...chord(0, 2, ...F7), [0, 0.5, 68], [0.5, 1.5, 69]],
  },
  {
    name: 'Enclosure',
    words: ['enclosure', 'enclosures', 'enclose'],
    what: 'A note from above and a note from below, then the note between them.',
    why: 'The ear waits for the note in the middle, wherever it falls.',
    example: [...chord(0, 2.5, ...F7), ...line(0, 0.5, 70, 68), [1, 1.5, 69]],
  },
  {
    name: 'Home scale',
    words: ['home scale'],
    what: 'The one scale you hold on to through the form.',
    why: 'What each chord adds to it is what you have to learn, and no more.',
    example: line(0, 0.5, 60, 63, 65, 66, 67, 70, 72),
  },
  {
    name: 'Pentatonic',
    words: ['pentatonic', 'pentatonics'],
    what: 'A scale of five notes, with no half steps.',
    why: 'It sounds good nearly everywhere. What it leaves out is what tells the chords.',
    example: line(0, 0.5, 57, 60, 62, 64, 67, 69),
  },
  {
    name: 'Lacks and rubs',
    words: ['lacks', 'rub', 'rubs'],
    what: 'Chord tones that your home scale does not have, and notes of it that clash with the chord.',
    why: 'Add what it lacks, pass through what rubs, and one scale fits every chord.',
    example: [...chord(0, 2, ...F7), [0, 1, 68], [1, 1, 69]],
  },
  {
    name: 'Plan',
    words: ['plan', 'plans'],
    what: 'The way of playing you chose: its notes, its targets, how far outside it goes.',
    why: 'A take is judged by what you meant to do.',
    example: null,
  },
  {
    name: 'Tension',
    words: ['tension', 'height', 'outside'],
    what: 'How far a note is from its chord, from a chord tone up to a note outside.',
    why: 'A solo that rises and comes home holds the ear.',
    example: [...chord(0, 4, ...C7), ...line(0, 1, 64, 69, 66, 67)],
  },
  {
    name: 'Step-out',
    words: ['step out', 'step-out'],
    what: 'A run of notes outside the chord, on purpose, that comes home.',
    why: 'It is the way home that makes it sound meant.',
    example: [...chord(0, 3, ...C7), ...line(0, 0.5, 61, 65, 68, 66), [2, 1, 67]],
  },
  {
    name: 'Arpeggio',
    words: ['arpeggio', 'arpeggios'],
    what: 'The notes of a chord one after another.',
    why: 'Nothing says a chord more clearly.',
    example: line(0, 0.5, 60, 64, 67, 70, 72),
  },
  {
    name: 'ii–V',
    words: ['ii–V', 'ii–V–I'],
    what: 'A minor chord and a dominant a fourth above it, on their way home.',
    why: 'Most standards are made of it. One line learnt here fits in many places.',
    example: [...chord(0, 2, ...DM7), ...chord(2, 2, ...G7), ...chord(4, 2, ...CMAJ7)],
  },
  {
    name: 'Substitute',
    words: ['substitute', 'substitutes', 'lay changes over', 'superimposed'],
    what: 'Another chord that you play over the written one.',
    why: 'The band stays, your line leaves and comes back.',
    example: [...chord(0, 2, ...G7), ...chord(2, 2, ...CMAJ7), ...line(0, 0.5, 68, 65, 63, 61), [2, 2, 60]],
  },
  {
    name: 'Phrase',
    words: ['phrase', 'phrases'],
    what: 'Notes between two rests: what a singer would sing in one breath.',
    why: 'Where phrases begin and end is half of how a solo sounds.',
    example: [...line(0, 0.5, 67, 70, 69, 67), [2, 1, 64]],
  },
  {
    name: 'Motif',
    words: ['motif', 'motifs'],
    what: 'A few notes that come back, the same or changed.',
    why: 'It ties a solo together.',
    example: [...line(0, 0.5, 64, 67), [1, 1, 65], ...line(2.5, 0.5, 63, 67), [3.5, 1, 65]],
  },
  {
    name: 'Upbeat',
    words: ['upbeat', 'upbeats', 'offbeat', 'offbeats'],
    what: 'The second half of a beat, where you say “and”.',
    why: 'Phrases that begin or land there swing.',
    example: [...line(0.5, 1, 67, 67, 67), [3.5, 0.5, 64]],
  },
  {
    name: 'Swing',
    words: ['swing', 'shuffle'],
    what: 'The first half of each beat is longer than the second.',
    why: 'How long it is differs with tempo and player. Yours is shown.',
    example: [0, 1, 2, 3].flatMap((beat): ExampleNote[] => [
      [beat, 0.66, 64],
      [beat + 0.66, 0.34, 67],
    ]),
  },
  {
    name: 'Lean',
    words: ['lean', 'leans', 'ahead', 'behind'],
    what: 'How far ahead of the beat or behind it you play, evenly.',
    why: 'An even lean is style. One that grows is rushing or dragging.',
    example: null,
  },
  {
    name: 'The muted band',
    words: ['without the band', 'muted band'],
    what: 'Could someone name the chords from your line alone?',
    why: 'It is the hardest test of a line, and the fairest.',
    example: null,
  },
  {
    name: 'Position and shape',
    words: ['position', 'shape', 'shapes'],
    what: 'Where your index finger lies, and the pattern of notes under your hand.',
    why: 'A shape you know by its root can be moved to every key.',
    example: null,
  },
  {
    name: 'Latency',
    words: ['latency'],
    what: 'The time sound takes through your computer and back.',
    why: 'It must be known to say whether you were early or late.',
    example: null,
  },
];

/** The terms whose words stand in a text, in the order of the list. */
export function termsIn(text: string): MusicalTerm[] {
  const lower = text.toLowerCase();
  return MUSICAL_TERMS.filter(({ words }) => words.some((word) => stands(word.toLowerCase(), lower)));
}

/** As a word of its own, not within another. */
function stands(word: string, text: string): boolean {
  const isLetter = (at: number) => /\p{L}/u.test(text.charAt(at));
  for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1))
    if (!isLetter(at - 1) && !isLetter(at + word.length)) return true;
  return false;
}
