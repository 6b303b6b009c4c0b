/** How far above the chords a chorus is meant to float (T14.6). */
export type HeightIntent = 'ground' | 'low' | 'high' | 'free';

export type School = {
  readonly name: string;
  /** In a line of text. */
  readonly short: string;
  /** Why its teachers teach it. */
  readonly why: string;
  /** What it is bad at. */
  readonly badAt: string;
  readonly height: HeightIntent;
};

/**
 * The schools of improvising over changes, in the order the chooser shows them. Teachers disagree, each for a
 * good reason.
 */
export const PLANS = {
  outline: {
    name: 'Outline',
    short: 'outline',
    height: 'ground',
    why: 'Chord tones only: nothing else teaches the sound of the change as fast.',
    badAt: 'It walks in skips and has no breath of its own; melody must come later.',
  },
  'single-target': {
    name: 'Single target',
    short: 'single target',
    height: 'ground',
    why: 'One chosen chord tone per chord: a line of thirds alone already tells the chords.',
    badAt: 'It is the first rung and no music yet; stay on it until the hand is sure, no longer.',
  },
  'home-scale': {
    name: 'Home scale',
    short: 'home scale',
    height: 'low',
    why: 'One scale for the whole form: freedom to phrase, melody over harmony.',
    badAt: 'The chords can change without the line noticing, and a listener hears none of them go by.',
  },
  'home-tell-tale': {
    name: 'Home scale and tell-tale tones',
    short: 'home + tell-tale',
    height: 'low',
    why: 'The smallest change to what the hand knows, the largest change in sound.',
    badAt: 'The added tones are easily played like visitors, touched once and never phrased.',
  },
  'scale-per-chord': {
    name: 'Scale per chord',
    short: 'scale per chord',
    height: 'low',
    why: 'The full colour of every chord, read from what the chord does.',
    badAt: 'Seven notes a chord invite running up and down; without targets it becomes scales.',
  },
  'pentatonic-per-chord': {
    name: 'Pentatonic per chord',
    short: 'pentatonic per chord',
    height: 'low',
    why: 'Familiar fingerings, modern colour, and clear switches where the chord changes.',
    badAt: 'The shape can lead the ear: every chord gets the same licks a few frets away.',
  },
  'sixth-diminished': {
    name: 'Sixth-diminished',
    short: 'sixth-diminished',
    height: 'low',
    why: 'A sixth chord and the diminished between its tones: tension and release inside one scale of eight notes.',
    badAt: 'It hears the tonic as a sixth chord; where the tune holds a major seventh the two rub.',
  },
  'major-minor-blend': {
    name: 'Major–minor blend',
    short: 'major–minor blend',
    height: 'free',
    why: 'Minor and major pentatonic on one tonic: the blues third is neither, and the rub is the point.',
    badAt: 'Away from a blues the rub sounds like a slip; over the fifth degree it says little of the chord.',
  },
  'borrowed-shapes': {
    name: 'Borrowed shapes',
    short: 'borrowed shapes',
    height: 'low',
    why: 'Arpeggios of related chords laid over this one: a richer sound from shapes the hand has.',
    badAt: 'The root of the chord is seldom heard, so the bass has to say where you are.',
  },
  'minor-dominant': {
    name: 'Minor-key dominant',
    short: 'minor dominant',
    height: 'low',
    why: 'Natural minor, and harmonic minor where the dominant sounds: one altered tone for one bar.',
    badAt: 'It has one idea; other borrowed chords of the tune pass unheard.',
  },
  'step-out': {
    name: 'Step out and return',
    short: 'step out',
    height: 'high',
    why: 'Any shape moved by half steps: tension needs an arrival, not a theory.',
    badAt: 'Without a place to come home to it is only wrong notes, and it hides the chords while it lasts.',
  },
  'shape-neighbours': {
    name: 'Shape and neighbours',
    short: 'shape + neighbours',
    height: 'low',
    why: 'The chord shape under the hand and the frets beside it: no scale names needed, the hand sees the chord.',
    badAt: 'It depends on the shape you know; a string without a chord tone stays silent.',
  },
  'parallel-mode': {
    name: 'Parallel mode',
    short: 'parallel mode',
    height: 'low',
    why: 'The same mode moved with each chord: one fingering, every chord’s own colour.',
    badAt: 'Where chords share a key the moves sound larger than the harmony is.',
  },
  free: {
    name: 'Free',
    short: 'free',
    height: 'free',
    why: 'Nothing is asked for but to come home: what the other plans taught, without their rules.',
    badAt: 'It says nothing you could miss, so it teaches nothing by itself.',
  },
  superimposed: {
    name: 'Superimposed changes',
    short: 'superimposed',
    height: 'high',
    why: 'The line follows other chords than the band plays: substitutes, side-slips, a ii–V put before a chord.',
    badAt: 'The band goes on with the written chords: without a clear way back the two only rub.',
  },
  'by-degrees': {
    name: 'By degrees',
    short: 'by degrees',
    height: 'free',
    why: 'A scale of your own choosing, written as degrees: pentatonics made for the chord under them.',
    badAt: 'Nobody has tested it but you; what it leaves out you will not play.',
  },
} as const satisfies Record<string, School>;

export type PlanId = keyof typeof PLANS;
export const PLAN_IDS = Object.keys(PLANS) as PlanId[];

export const HEIGHT_INTENTS: readonly HeightIntent[] = ['ground', 'low', 'high', 'free'];

/** What single tones are learnt in; teachers who say thirds first put it first. */
export const RUNGS = ['root', 'third', 'fifth', 'seventh'] as const;
export type Rung = (typeof RUNGS)[number];

/** Settings that schools disagree on, with the short note why. */
export const DISAGREEMENTS = {
  tonicSix: 'A tonic that is a sixth chord rests; a major seventh still leans. Many tunes sing the sixth.',
  ladder: 'Roots first tell the hand where it is; thirds first tell the ear what the chord is.',
} as const;
