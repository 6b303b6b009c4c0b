import { DRILL_KINDS, type DrillKind } from '@/core/drills';

/** The ladder of a chart, rung by rung, and everything else there is, by what it trains. */
export const GROUPS: readonly (readonly [string, readonly DrillKind[]])[] = [
  [
    'The ladder',
    [
      'ladder-roots',
      'ladder-thirds',
      'ladder-fifths',
      'ladder-sevenths',
      'one-target',
      'chord-tones',
      'nearest-note',
    ],
  ],
  [
    'Into the target',
    [
      'third-from-below',
      'third-from-above',
      'fifth-from-flat-five',
      'fifth-from-above',
      'root-from-below',
      'root-from-above',
      'seventh-from-below',
      'seventh-from-above',
      'target-from-below',
      'slides-into-tones',
      'blue-third',
      'enclosures',
      'double-chromatic',
    ],
  ],
  [
    'Arpeggios and scales',
    [
      'arpeggios',
      'scale-runs',
      'arpeggio-up-scale-down',
      'scale-up-arpeggio-down',
      'skips',
      'threes',
      'descending-fours',
    ],
  ],
  ['What the plan plays', ['plan-only', 'home-tell-tale', 'minor-dominant', 'superimposed']],
  [
    'Phrases',
    [
      'start-on-two',
      'start-on-three',
      'start-on-four',
      'start-in-turn',
      'leave-space',
      'end-at-rest',
      'through-the-change',
      'long-phrases',
      'same-motif',
      'own-phrase',
      'no-two-alike',
      'call-and-answer',
    ],
  ],
  ['Time', ['anticipate', 'upbeats', 'in-time', 'chords-and-line']],
  [
    'Neck and height',
    [
      'one-position',
      'next-position',
      'low-and-high',
      'on-the-ground',
      'height-low',
      'height-high',
      'height-free',
      'step-out-come-home',
    ],
  ],
];

/** Drills that stand in no group: there should be none. */
export const UNGROUPED = DRILL_KINDS.filter((kind) => !GROUPS.some(([, kinds]) => kinds.includes(kind)));
