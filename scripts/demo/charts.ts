/** The demo's charts: our own titles over standard forms, which are common property. The first three are the scenario's. */
export const DEMO_CHARTS = {
  lamplight: `title: Lamplight Quarry
key: Bb   tempo: 96
feel: swing

| Bb7 | Eb7 | Bb7    | %      |
| Eb7 | %   | Bb7    | G7     |
| Cm7 | F7  | Bb7 G7 | Cm7 F7 |
`,
  ferry: `title: Ferry Before Rain
key: Fm   tempo: 116
feel: swing

| Fm7   | %     | Bbm7 | %  |
| Gm7b5 | C7b9  | Fm7  | %  |
| Bbm7  | Eb7   | Abmaj7 | Dbmaj7 |
| Gm7b5 | C7b9  | Fm7  | Gm7b5 C7b9 |
`,
  orchard: `title: Tin Orchard
key: Eb   tempo: 132
feel: swing

[A]
| Ebmaj7 | C7b9 | Fm7 | Bb7 |
| Gm7 C7 | Fm7 Bb7 | Eb6 | Fm7 Bb7 |
[A]
| Ebmaj7 | C7b9 | Fm7 | Bb7 |
| Gm7 C7 | Fm7 Bb7 | Eb6 | % |
[B]
| Bbm7 | Eb7 | Abmaj7 | % |
| Am7b5 | D7b9 | Gm7 C7 | Fm7 Bb7 |
[A]
| Ebmaj7 | C7b9 | Fm7 | Bb7 |
| Gm7 C7 | Fm7 Bb7 | Eb6 | Fm7 Bb7 |
`,
  weir: `title: Copper Weir
key: C   tempo: 104
feel: straight

| C | G | Am | F |
| C | G | F | % |
`,
  platform: `title: Third Platform
key: Dm   tempo: 126
feel: bossa

| Dm7 | % | Em7b5 | A7b9 |
| Dm7 | % | Gm7 | C7 |
| Fmaj7 | Bbmaj7 | Em7b5 | A7b9 |
| Dm7 | Bb7 A7b9 | Dm7 | Em7b5 A7b9 |
`,
  lantern: `title: Low Lantern
key: F   tempo: 112
feel: blues shuffle

| F7 | % | % | % |
| Bb7 | % | F7 | % |
| C7 | Bb7 | F7 | C7 |
`,
  gravel: `title: Gravel and Salt
key: A   tempo: 138
feel: waltz
meter: 3/4

|: Amaj7 | F#m7 | Bm7 | E7 |1. C#m7 | F#7b9 | Bm7 | E7 :|2. C#m7 F#7b9 . | Bm7 E7 . | A6 | % |
`,
} as const;

export type DemoChart = keyof typeof DEMO_CHARTS;
