import { noteName } from '../music';
import { ENOUGH, type FindingContext } from './finding';
import { lineOf, rangeOf } from './kinds/reach';
import { marksOf } from './marks';
import { typeset } from '../music';

export type StepKind =
  'play-more' | 'next-rung' | 'another-register' | 'band-out' | 'faster' | 'another-key' | 'again';

/** What to do next where nothing is wrong (T13.6), with what it changes about the take. */
export type NextStep = {
  readonly kind: StepKind;
  /** One imperative of at most twenty words. */
  readonly sentence: string;
  readonly tempo?: number;
  readonly plan?: string;
};

/** What of a take is held already. */
type Held = {
  readonly notes: number;
  readonly judged: number;
  readonly choruses: number;
  /** Over one chord there is no change to meet. */
  readonly hasChanges: boolean;
  /** Share of changes met. */
  readonly met: number;
  /** Share of chords that the line alone tells. */
  readonly told: number;
  readonly range: number;
  readonly tempo: number;
  readonly plan: string;
  readonly key: string;
};

const FEWEST_NOTES = 12;
const TENTH = 16;
const [HELD, WELL_HELD] = [0.75, 0.85];
const FAST = 200;

/** The rung after a plan, and what it adds. */
const RUNGS: Readonly<Record<string, readonly [plan: string, sentence: string]>> = {
  'single-target': ['outline', 'Play all chord tones now, not only the one.'],
  outline: ['scale-per-chord', 'Join the chord tones by their scales now.'],
  'home-scale': ['home-tell-tale', 'Add the one note that each chord has and your scale lacks.'],
  'home-tell-tale': ['scale-per-chord', 'Play each chord’s own scale now.'],
};

/** The first that fits what is held, from too little to judge up to playing it in another key. */
export function nextStepOf(context: FindingContext): NextStep {
  const held = heldIn(context);
  if (held.notes < FEWEST_NOTES || (held.hasChanges && held.judged < ENOUGH)) return plain('play-more', held);
  if (!held.hasChanges) return stepOverOneChord(held);
  const rung = held.met >= WELL_HELD ? RUNGS[held.plan] : undefined;
  if (rung) return { kind: 'next-rung', plan: rung[0], sentence: rung[1] };
  if (held.met >= HELD && held.range < TENTH) return plain('another-register', held);
  if (held.met >= WELL_HELD && held.told >= WELL_HELD) return plain('band-out', held);
  if (held.met >= HELD && held.tempo < FAST)
    return { kind: 'faster', tempo: faster(held.tempo), sentence: STEP_WORDS.faster(held) };
  return plain(held.met >= HELD ? 'another-key' : 'again', held);
}

function stepOverOneChord(held: Held): NextStep {
  if (held.range < TENTH) return plain('another-register', held);
  return held.tempo < FAST
    ? { kind: 'faster', tempo: faster(held.tempo), sentence: STEP_WORDS.faster(held) }
    : plain('another-key', held);
}

const plain = (kind: Exclude<StepKind, 'next-rung'>, held: Held): NextStep => ({
  kind,
  sentence: STEP_WORDS[kind](held),
});

function heldIn(context: FindingContext): Held {
  const { report, plan, chart, tempo } = context;
  const marks = marksOf(report, plan, chart, tempo).filter((mark) => mark !== 'rest');
  const met = marks.filter((mark) => mark === 'target' || mark === 'target-late').length;
  const pitches = lineOf(context);
  return {
    notes: report.summary.notes,
    judged: marks.length,
    choruses: report.summary.choruses,
    hasChanges: report.changes.length > 0,
    met: met / Math.max(1, marks.length),
    told: report.mutedBand.share ?? 0,
    range: pitches.length > 0 ? rangeOf(pitches) : 0,
    tempo,
    plan: plan.id,
    key: chart.key ? noteName(chart.key.tonic) : 'here',
  };
}

/** A twelfth faster, in steps a metronome has. */
const faster = (tempo: number): number => Math.max(Math.round(tempo) + 4, Math.round((tempo * 1.08) / 4) * 4);

const STEP_WORDS: Readonly<Record<Exclude<StepKind, 'next-rung'>, (held: Held) => string>> = {
  'play-more': ({ notes, choruses }) => {
    if (notes === 0) return 'Check the input, then play one chorus.';
    return choruses < 2 || notes < FEWEST_NOTES
      ? 'Play two whole choruses: then there is enough to judge.'
      : 'Play on into the next chord at each change: then there is enough to judge.';
  },
  'another-register': () => 'Play the next chorus an octave higher or lower.',
  'band-out': () => 'Let the chords drop out for one chorus and keep the form yourself.',
  faster: ({ tempo }) => `Play it at ${faster(tempo)}.`,
  'another-key': ({ key }) => `Play it in another key, a fourth up from ${typeset(key)}.`,
  again: () => 'Play it once more at this tempo, and meet four changes in five.',
};

/** Every step in words for made-up takes, for the table of sentences. */
export function stepSamples(): readonly (readonly [StepKind, string])[] {
  const takes: Held[] = [
    {
      notes: 0,
      judged: 0,
      choruses: 1,
      hasChanges: true,
      met: 0,
      told: 0,
      range: 0,
      tempo: 60,
      plan: 'outline',
      key: 'Bb',
    },
    {
      notes: 5,
      judged: 2,
      choruses: 1,
      hasChanges: true,
      met: 0.5,
      told: 0,
      range: 9,
      tempo: 132,
      plan: 'outline',
      key: 'F#',
    },
    {
      notes: 400,
      judged: 60,
      choruses: 4,
      hasChanges: true,
      met: 0.9,
      told: 0.9,
      range: 24,
      tempo: 220,
      plan: 'free',
      key: 'E',
    },
  ];
  return [
    ...Object.values(RUNGS).map(([, sentence]) => ['next-rung', sentence] as const),
    ...(Object.keys(STEP_WORDS) as (keyof typeof STEP_WORDS)[]).flatMap((kind) =>
      takes.map((held) => [kind, STEP_WORDS[kind](held)] as const),
    ),
  ];
}
