import type { DrillKind } from '../../src/core/drills';
import type { DemoChart } from './charts';

/** Attempts at one sitting: how many places each of them missed. The tempo is wherever the ladder stands. */
export type DemoSitting = {
  readonly daysAgo: number;
  readonly hour: number;
  readonly misses: readonly number[];
};
/** A drill of the demo: of the last finding about one change, or of the catalogue. */
export type DemoDrill = {
  readonly chart: DemoChart;
  readonly into?: string;
  readonly kind: DrillKind;
  readonly span: readonly [number, number];
  readonly tempo: number;
  readonly sittings: readonly DemoSitting[];
};

export const DEMO_DRILLS: readonly DemoDrill[] = [
  {
    chart: 'lamplight',
    into: 'F7',
    kind: 'ladder-thirds',
    span: [9, 10],
    tempo: 96,
    sittings: [
      { daysAgo: 5, hour: 20, misses: [4, 2, 1] },
      { daysAgo: 4, hour: 8, misses: [3, 2] },
    ],
  },
  { chart: 'lamplight', kind: 'enclosures', span: [7, 9], tempo: 96, sittings: [] },
  {
    chart: 'ferry',
    kind: 'minor-dominant',
    span: [1, 4],
    tempo: 96,
    sittings: [{ daysAgo: 3, hour: 19, misses: [2, 0] }],
  },
  {
    chart: 'orchard',
    kind: 'ladder-roots',
    span: [1, 8],
    tempo: 112,
    sittings: [{ daysAgo: 3, hour: 8, misses: [1, 0] }],
  },
];

/** What the player wrote on a day. */
export const DEMO_WORDS: readonly (readonly [daysAgo: number, text: string])[] = [
  [12, 'Chord tones only. It sounds like the tune for once, even without the band.'],
  [6, 'I hear the F7 go by and I am still on the C. Slow, two bars, nothing else.'],
  [1, 'The turnaround held twice. G7 next.'],
];

export const DEMO_GOAL = {
  words: 'Thursday’s jam',
  minutes: 30,
  charts: ['lamplight', 'ferry', 'orchard'] as const satisfies readonly DemoChart[],
};

/** Phrases of the demo's player, as they are typed. */
export const DEMO_PHRASES: readonly {
  readonly name: string;
  readonly tags: readonly string[];
  readonly chords: string;
  readonly line: string;
}[] = [
  {
    name: 'Up the minor chord, over its ninth',
    tags: ['minor', 'arpeggio'],
    chords: 'Am7',
    line: '.:1/2 A3 E4 A4 C5 E5 B4 C5',
  },
  {
    name: 'Around the third of home',
    tags: ['ii–V–I'],
    chords: 'Dm7 | G7 | Cmaj7',
    line: 'F4:1/2 A C5 E5 D5 C5 B4 A4 | Ab4 B4 D5 F5 Eb5 D5 Db5 F5 | E5:2 G4:1',
  },
  { name: 'Four notes to move', tags: ['cell'], chords: 'Cm7', line: 'Eb4:1/2 F G Bb' },
];
