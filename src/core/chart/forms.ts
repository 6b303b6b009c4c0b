/** A form to start from: standard changes under a title of our own. */
export type LibraryForm = {
  readonly id: string;
  /** What kind of form it is, as players name it. */
  readonly family: string;
  /** What there is to learn in it, in a line. */
  readonly about: string;
  /** Tempos it is usually played at, in beats a minute. */
  readonly tempos: readonly [number, number];
  readonly text: string;
};

const form = (
  id: string,
  family: string,
  about: string,
  tempos: readonly [number, number],
  text: string,
): LibraryForm => ({ id, family, about, tempos, text: `${text.trim()}\n` });

/** Standard forms are common property; the titles are invented. Changes are common practice, no source. */
export const LIBRARY: readonly LibraryForm[] = [
  form(
    'lamplight',
    'Blues',
    'Quick change to IV, and a ii–V turnaround',
    [80, 160],
    'title: Lamplight Quarry\nkey: Bb   tempo: 96\nfeel: swing\n\n| Bb7 | Eb7 | Bb7    | %      |\n| Eb7 | %   | Bb7    | G7     |\n| Cm7 | F7  | Bb7 G7 | Cm7 F7 |',
  ),
  form(
    'lantern',
    'Blues',
    'The plain twelve bars',
    [60, 140],
    'title: Low Lantern\nkey: F   tempo: 112\nfeel: blues shuffle\n\n| F7 | % | % | % |\n| Bb7 | % | F7 | % |\n| C7 | Bb7 | F7 | C7 |',
  ),
  form(
    'kiln',
    'Blues',
    'Quick change in a shuffle',
    [90, 150],
    'title: Kiln Street\nkey: A   tempo: 118\nfeel: blues shuffle\n\n| A7 | D7 | A7 | % |\n| D7 | % | A7 | % |\n| E7 | D7 | A7 | E7 |',
  ),
  form(
    'tallow',
    'Blues',
    'Eight bars',
    [60, 120],
    'title: Tallow Steps\nkey: E   tempo: 84\nfeel: blues shuffle\n\n| E7 | B7 | A7 | A7 A#dim7 |\n| E7 | B7 | E7 A7 | E7 B7 |',
  ),
  form(
    'coldharbour',
    'Minor blues',
    'Twelve bars in minor, subV to V',
    [60, 140],
    'title: Cold Ferry Slip\nkey: Cm   tempo: 92\nfeel: blues swing\n\n| Cm7 | % | % | % |\n| Fm7 | % | Cm7 | % |\n| Ab7 | G7 | Cm7 | G7 |',
  ),
  form(
    'slate',
    'Minor blues',
    'With a half-diminished ii–V',
    [100, 200],
    'title: Slate Roof Morning\nkey: Am   tempo: 132\nfeel: blues swing\n\n| Am7 | Dm7 | Am7 | Em7b5 A7b9 |\n| Dm7 | % | Am7 | % |\n| Bm7b5 | E7b9 | Am7 | Bm7b5 E7b9 |',
  ),
  form(
    'pulley',
    'Rhythm form',
    'Thirty-two bars, a bridge of dominants',
    [120, 260],
    'title: Pulley and Rope\nkey: Bb   tempo: 168\nfeel: swing\n\n[A]\n|: Bb6 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 |\n| Bb7 | Eb7 Ebm6 |1. Dm7 G7 | Cm7 F7 :|2. Cm7 F7 | Bb6 |\n[B]\n| D7 | % | G7 | % |\n| C7 | % | F7 | % |\n[A]\n| Bb6 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 |\n| Bb7 | Eb7 Ebm6 | Cm7 F7 | Bb6 |',
  ),
  form(
    'orchard',
    'Thirty-two bars',
    'AABA with a bridge to IV',
    [100, 200],
    'title: Tin Orchard\nkey: Eb   tempo: 132\nfeel: swing\n\n[A]\n| Ebmaj7 | C7b9 | Fm7 | Bb7 |\n| Gm7 C7 | Fm7 Bb7 | Eb6 | Fm7 Bb7 |\n[A]\n| Ebmaj7 | C7b9 | Fm7 | Bb7 |\n| Gm7 C7 | Fm7 Bb7 | Eb6 | % |\n[B]\n| Bbm7 | Eb7 | Abmaj7 | % |\n| Am7b5 | D7b9 | Gm7 C7 | Fm7 Bb7 |\n[A]\n| Ebmaj7 | C7b9 | Fm7 | Bb7 |\n| Gm7 C7 | Fm7 Bb7 | Eb6 | Fm7 Bb7 |',
  ),
  form(
    'ferry',
    'Minor tune',
    'Sixteen bars with half-diminished ii–Vs',
    [90, 180],
    'title: Ferry Before Rain\nkey: Fm   tempo: 116\nfeel: swing\n\n| Fm7   | %     | Bbm7 | %  |\n| Gm7b5 | C7b9  | Fm7  | %  |\n| Bbm7  | Eb7   | Abmaj7 | Dbmaj7 |\n| Gm7b5 | C7b9  | Fm7  | Gm7b5 C7b9 |',
  ),
  form(
    'lockkeeper',
    'ii–V cycle',
    'Major ii–V–Is falling by whole steps',
    [80, 180],
    'title: Lockkeeper\nkey: C   tempo: 120\nfeel: swing\n\n[C]\n| Dm7 | G7 | Cmaj7 | % |\n[Bb]\nkey: Bb\n| Cm7 | F7 | Bbmaj7 | % |\n[Ab]\nkey: Ab\n| Bbm7 | Eb7 | Abmaj7 | % |\n[F#]\nkey: F#\n| G#m7 | C#7 | F#maj7 | % |',
  ),
  form(
    'underpass',
    'ii–V cycle',
    'Minor ii–Vs round the fourths',
    [70, 150],
    'title: Underpass\nkey: Dm   tempo: 104\nfeel: swing\n\n[D]\n| Em7b5 | A7b9 | Dm6 | % |\n[G]\nkey: Gm\n| Am7b5 | D7b9 | Gm6 | % |\n[C]\nkey: Cm\n| Dm7b5 | G7b9 | Cm6 | % |\n[F]\nkey: Fm\n| Gm7b5 | C7b9 | Fm6 | % |',
  ),
  form(
    'relay',
    'ii–V cycle',
    'Relative major and minor, bar by bar',
    [100, 200],
    'title: Relay Leaves\nkey: Em   tempo: 124\nfeel: swing\n\n| Am7 | D7 | Gmaj7 | Cmaj7 |\n| F#m7b5 | B7b9 | Em7 | % |',
  ),
  form(
    'plateau',
    'Modal',
    'AABA on two minor chords',
    [110, 220],
    'title: Plateau Road\nkey: Dm   tempo: 138\nfeel: swing\n\n[A]\n|: Dm7 | % | % | % | % | % | % | % :|\n[B]\nkey: Ebm\n| Ebm7 | % | % | % | % | % | % | % |\n[A]\n| Dm7 | % | % | % | % | % | % | % |',
  ),
  form(
    'carousel',
    'Turnaround',
    'I vi ii V, two chords a bar',
    [80, 180],
    'title: Small Carousel\nkey: F   tempo: 126\nfeel: swing\n\n| F6 Dm7 | Gm7 C7 | Am7 D7 | Gm7 C7 |',
  ),
  form(
    'backstairs',
    'Turnaround',
    'Substitutes slipping down by half steps',
    [70, 160],
    'title: Back Stairs\nkey: C   tempo: 110\nfeel: swing\n\n| Cmaj7 Eb7 | Dm7 Db7 | Cmaj7 A7 | Dm7 G7 |',
  ),
  form(
    'platform',
    'Bossa',
    'Sixteen bars in minor',
    [110, 160],
    'title: Third Platform\nkey: Dm   tempo: 126\nfeel: bossa\n\n| Dm7 | % | Em7b5 | A7b9 |\n| Dm7 | % | Gm7 | C7 |\n| Fmaj7 | Bbmaj7 | Em7b5 | A7b9 |\n| Dm7 | Bb7 A7b9 | Dm7 | Em7b5 A7b9 |',
  ),
  form(
    'shutters',
    'Bossa',
    'A major seventh that goes minor, and subV home',
    [110, 150],
    'title: Painted Shutters\nkey: F   tempo: 128\nfeel: bossa\n\n[A]\n|: Fmaj7 | % | G7 | % | Gm7 | Gb7 |1. Fmaj7 | Gb7 :|2. Fmaj7 | % |\n[B]\n| Bbmaj7 | Bbm6 | Am7 | D7b9 |\n| Gm7 | C7 | Fmaj7 | Gb7 |',
  ),
  form(
    'gravel',
    'Waltz',
    'Three beats, a repeat with two endings',
    [100, 180],
    'title: Gravel and Salt\nkey: A   tempo: 138\nfeel: waltz\nmeter: 3/4\n\n|: Amaj7 | F#m7 | Bm7 | E7 |1. C#m7 | F#7b9 | Bm7 | E7 :|2. C#m7 F#7b9 . | Bm7 E7 . | A6 | % |',
  ),
  form(
    'weathervane',
    'Waltz',
    'Minor, with a borrowed chord each line',
    [100, 170],
    'title: Weathervane\nkey: Gm   tempo: 132\nfeel: waltz\nmeter: 3/4\n\n| Gm7 | % | Cm7 | % |\n| Am7b5 | D7b9 | Gm6 | % |\n| Ebmaj7 | Abmaj7 | Am7b5 | D7b9 |\n| Gm7 | Cm7 D7b9 . | Gm6 | D7b9 |',
  ),
  form(
    'fivegates',
    'Five-four',
    'Three and two, on two chords and a bridge',
    [120, 200],
    'title: Five Gates\nkey: Ebm   tempo: 156\nfeel: five-four swing\nmeter: 5/4\n\n[A]\n|: Ebm7 . . Bbm7 . | % | % | % :|\n[B]\n| Cbmaj7 . . Abm7 . | Bbm7 . . Ebm7 . | Abm7 . . Db7 . | Gbmaj7 . . Bb7 . |',
  ),
  form(
    'anvil',
    'Vamp',
    'One dominant chord',
    [80, 130],
    'title: Anvil\nkey: E   tempo: 100\nfeel: funk\n\n| E9 | % | % | % |',
  ),
  form(
    'tidemark',
    'Vamp',
    'i and IV: Dorian',
    [80, 130],
    'title: Tidemark\nkey: Am   tempo: 108\nfeel: funk\n\n| Am7 | D9 | Am7 | D9 |',
  ),
  form(
    'seesaw',
    'Vamp',
    'Two major sevenths a whole step apart',
    [80, 140],
    'title: Slow Seesaw\nkey: C   tempo: 96\nfeel: straight\n\n| Cmaj7 | % | Bbmaj7 | % |',
  ),
  form(
    'fencepost',
    'Country',
    'Three chords',
    [90, 200],
    'title: Fencepost\nkey: G   tempo: 140\nfeel: country\n\n| G | % | C | G |\n| G | % | D | % |\n| G | G7 | C | % |\n| G | D | G | D |',
  ),
  form(
    'brickyard',
    'Latin',
    'i iv V in minor',
    [90, 200],
    'title: Brickyard Saints\nkey: Am   tempo: 148\nfeel: latin\n\n| Am | Dm | E7 | Am |\n| Am | Dm | E7 | % |',
  ),
  form(
    'weir',
    'Pop',
    'One, five, six, four',
    [70, 130],
    'title: Copper Weir\nkey: C   tempo: 104\nfeel: straight\n\n| C | G | Am | F |\n| C | G | F | % |',
  ),
  form(
    'windowseat',
    'Ballad',
    'Borrowed iv, ♭VII and ♭VI',
    [56, 80],
    'title: Window Seat\nkey: G   tempo: 66\nfeel: ballad\n\n| Gmaj7 | Cm6 | Gmaj7 | F7 |\n| Em7 | A7 | Am7 | D7 |\n| Gmaj7 | Ebmaj7 | Cmaj7 | Cm6 F7 |\n| Bm7 E7 | Am7 D7 | G6 | Am7 D7 |',
  ),
];
