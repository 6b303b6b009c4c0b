/**
 * Short lines labelled on paper by the rules, before anything was asked of the machine.
 *
 * A line is written in half beats from beat 0: a note name, `-` to hold, `.` to rest, `+` for notes struck together, `|` for the eye. Or note by note: `63@0+0.1` is
 * MIDI 63 at beat 0 for a tenth of a beat. A label is the interval and what the note did: t target, c chord tone, a anticipation, en enclosure, dc double-chromatic,
 * ab/aa approach from below/above, su suspension, re retardation, pa passing, ne neighbour, co colour, sc scale, ou outside, gr grace. Guide tones are the targets.
 */
export type LabelledLine = {
  readonly name: string;
  readonly chart: string;
  readonly line: string;
  readonly tempo?: number;
  /** One label per note, in order of onset, then pitch. */
  readonly labels?: string;
  /** The first changes: `timing interval verdict connection`. */
  readonly landings?: readonly string[];
  /** `start-end ending`. */
  readonly phrases?: readonly string[];
  /** `kind name relation first-last`. */
  readonly shapes?: readonly string[];
  /** The first segments of the muted-band test. */
  readonly heard?: string;
};

const II = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
const ONE = 'key: C\n| Cmaj7 | % |';
const five = (key: string, chord: string, last: string): string =>
  `key: ${key}\n| ${chord} | % | % | % | % | ${last} |`;

/** All twelve notes above a root, alone, with rests that no figure reaches across. */
const twelve = (from: string): string => {
  const names = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
  const start = names.indexOf(from);
  return Array.from(
    { length: 12 },
    (_, step) => `${names[(start + step) % 12]}${start + step < 12 ? 4 : 5} . .`,
  ).join(' ');
};

export const LABELLED_LINES: readonly LabelledLine[] = [
  // approaches, over a tonic major seventh
  { name: 'a half step below, chromatic', chart: ONE, line: 'G4 D#4 E4 -', labels: '5c #9ab 3t' },
  { name: 'a scale tone on the way down', chart: ONE, line: 'G4 F4 E4', labels: '5c 4pa 3t' },
  { name: 'out and back', chart: ONE, line: 'E4 F4 E4', labels: '3t 4ne 3t' },
  { name: 'leapt to, left by step', chart: ONE, line: 'C4 F4 E4', labels: '1c 4aa 3t' },
  { name: 'the same on a beat leans', chart: ONE, line: 'C4 - F4 E4', labels: '1c 4aa 3t' },
  { name: 'a half step above, chromatic', chart: ONE, line: 'C4 Ab4 G4', labels: '1c b13aa 5c' },
  { name: 'a half step below the fifth', chart: ONE, line: 'C4 F#4 G4', labels: '1c #11ab 5c' },
  { name: 'a whole step above, in the scale', chart: ONE, line: 'C4 A4 G4', labels: '1c 6aa 5c' },
  { name: 'a sixth that leaps away is a colour', chart: ONE, line: 'C4 A4 E4', labels: '1c 6co 3t' },
  { name: 'a fourth that leaps away is scale', chart: ONE, line: 'C4 F4 C4', labels: '1c 4sc 1c' },
  { name: 'a half step that leaps away is outside', chart: ONE, line: 'C4 C#4 G4', labels: '1c b9ou 5c' },
  {
    name: 'chromatic between a chord tone and a colour',
    chart: ONE,
    line: 'E4 Eb4 D4 -',
    labels: '3t #9pa 9co',
  },
  { name: 'two half steps down', chart: ONE, line: 'E4 D4 Db4 C4', labels: '3t 9dc b9dc 1c' },
  { name: 'three half steps down', chart: ONE, line: 'E4 Eb4 D4 Db4 C4', labels: '3t #9dc 9dc b9dc 1c' },
  { name: 'two half steps up', chart: ONE, line: 'E4 F4 F#4 G4', labels: '3t 4dc #11dc 5c' },
  {
    name: 'three half steps up into the seventh',
    chart: ONE,
    line: 'G4 G#4 A4 Bb4 B4',
    labels: '5c b13dc 6dc b7dc 7t',
  },
  { name: 'one half step is no double', chart: ONE, line: 'G4 Bb4 B4', labels: '5c b7ab 7t' },
  { name: 'an approach needs its target linked', chart: ONE, line: 'C4 D#4 . . E4', labels: '1c #9ou 3t' },
  { name: 'half a beat between is still linked', chart: ONE, line: 'C4 D#4 . E4', labels: '1c #9ab 3t' },
  { name: 'chromatic neighbour', chart: ONE, line: 'G4 F#4 G4', labels: '5c #11ab 5c' },
  { name: 'a neighbour two below, in the scale', chart: ONE, line: 'G4 F4 G4', labels: '5c 4ne 5c' },
  { name: 'a third below is no neighbour', chart: ONE, line: 'D4 B3 D4', labels: '9co 7t 9co' },
  {
    name: 'passing through two scale tones: neither stands between chord tones a step away',
    chart: 'key: Am\n| Am7 | Dm7 |',
    line: 'C5 B4 A4',
    labels: 'b3t 9pa 1c',
  },
  {
    name: 'a third apart and adjacent in a pentatonic home is passing',
    chart: 'key: A\nfeel: blues\n| A7 | D7 |',
    line: 'A4 C5 D5',
    labels: '1c #9pa 4sc',
  },
  // enclosures
  {
    name: 'around the third from both sides, off the beat',
    chart: ONE,
    line: 'C4 D4 F4 E4',
    labels: '1c 9en 4en 3t',
  },
  { name: 'above, then a half step below', chart: ONE, line: 'C4 F4 D#4 E4', labels: '1c 4en #9en 3t' },
  { name: 'around the fifth on a beat', chart: ONE, line: 'C4 - A4 F#4 G4', labels: '1c 6en #11en 5c' },
  {
    name: 'one side a chord tone, the target on a beat',
    chart: ONE,
    line: 'E4 - D4 B3 C4',
    labels: '3t 9en 7t 1c',
  },
  {
    name: 'one side a chord tone, the target off the beat: none',
    chart: ONE,
    line: 'E4 D4 B3 C4',
    labels: '3t 9co 7t 1c',
  },
  { name: 'drawn out by a third above', chart: ONE, line: 'C4 G4 D4 F4 E4', labels: '1c 5c 9en 4en 3t' },
  {
    name: 'a colour may be enclosed on a beat',
    chart: ONE,
    line: 'C4 - E4 C#4 D4',
    labels: '1c 3t b9en 9co',
  },
  { name: 'a colour off the beat may not', chart: ONE, line: 'C4 E4 C#4 D4', labels: '1c 3t b9ou 9co' },
  { name: 'a beat of rest breaks it', chart: ONE, line: 'D4 . . F4 E4', labels: '9co 4aa 3t' },
  { name: 'three semitones are too wide', chart: ONE, line: 'C4 C#4 F4 E4', labels: '1c b9ou 4aa 3t' },
  {
    name: 'inside a sequence of thirds there is none',
    chart: ONE,
    line: 'C4 E4 D4 F4 E4 G4',
    labels: '1c 3t 9co 4aa 3t 5c',
  },
  {
    name: 'into the next chord: above and below its third',
    chart: II,
    line: '. . . . A4 - C5 Bb4 | B4 -',
    labels: '5c b7t b13en 3t',
    landings: ['on 3 target step'],
  },
  // landings, Dm7 to G7 at beat 4
  {
    name: 'seventh down a half step to the third',
    chart: II,
    line: 'F4 - A4 - D5 - C5 - | B4 - - -',
    labels: 'b3t 5c 1c b7t 3t',
    landings: ['on 3 target step'],
  },
  {
    name: 'on the root',
    chart: II,
    line: '. . . . A4 - A4 - | G4 - - -',
    labels: '5c 5c 1c',
    landings: ['on 1 chord-tone step'],
  },
  {
    name: 'on the ninth',
    chart: II,
    line: '. . . . A4 - C5 - | A4 - - -',
    labels: '5c b7t 9co',
    landings: ['on 9 colour skip'],
  },
  {
    name: 'on the fourth, home a step later',
    chart: II,
    line: '. . . . A4 - D5 - | C5 - B4 -',
    labels: '5c 1c 4aa 3t',
    landings: ['on 4 target step'],
  },
  {
    name: 'outside',
    chart: II,
    line: '. . . . A4 - C5 - | Db5 - . .',
    labels: '5c b7t #11ou',
    landings: ['on #11 outside step'],
  },
  {
    name: 'on the flat ninth of a plain dominant',
    chart: II,
    line: '. . . . A4 - G4 - | Ab4 - . .',
    labels: '5c 4co b9sc',
    landings: ['on b9 scale step'],
  },
  {
    name: 'pushed ahead by half a beat',
    chart: II,
    line: 'F4 - A4 - C5 - A4 B4 | - - - -',
    labels: 'b3t 5c b7t 5c 3a',
    landings: ['early 3 target step'],
  },
  {
    name: 'the root pushed ahead',
    chart: II,
    line: '. . . . A4 - A4 G4 | - - - -',
    labels: '5c 5c 1a',
    landings: ['early 1 chord-tone step'],
  },
  {
    name: 'a tone of both chords pushed ahead stays with the first',
    chart: II,
    line: '. . . . D5 - E5 F5 | - - - -',
    labels: '1c 9pa b3t',
    landings: ['early b7 target step'],
  },
  {
    name: 'held over from beat four',
    chart: II,
    line: '. . . . A4 - F4 - | - - - -',
    labels: '5c b3t',
    landings: ['held b7 target common'],
  },
  {
    name: 'held as a ninth, then down: a suspension',
    chart: II,
    line: '. . . . F4 - A4 - | - - G4 -',
    labels: 'b3t 5su 1c',
    landings: ['held 9 colour common'],
  },
  {
    name: 'held as a fourth, then up: a retardation',
    chart: II,
    line: '. . . . F4 - C5 - | - - D5 -',
    labels: 'b3t b7re 5c',
    landings: ['held 4 scale common'],
  },
  {
    name: 'half a beat late',
    chart: II,
    line: '. . . . A4 - C5 - | . B4 - -',
    labels: '5c b7t 3t',
    landings: ['late 3 target step'],
  },
  {
    name: 'a beat and a half late is none',
    chart: II,
    line: '. . . . A4 - C5 - | . . . B4 -',
    labels: '5c b7t 3t',
    landings: ['none'],
  },
  {
    name: 'nothing a beat either way is rest',
    chart: II,
    line: 'A4 - . . . . . . | . . . B4 -',
    labels: '5c 3t',
    landings: ['rest'],
  },
  {
    name: 'after a silence',
    chart: II,
    line: 'A4 - . . . . . . | B4 -',
    labels: '5c 3t',
    landings: ['on 3 target fresh'],
  },
  {
    name: 'leapt into',
    chart: II,
    line: '. . . . A4 - F4 - | D5 - - -',
    labels: '5c b3t 5c',
    landings: ['on 5 chord-tone leap'],
  },
  {
    name: 'the same tone struck again',
    chart: II,
    line: '. . . . A4 - F4 - | F4 - - -',
    labels: '5c b3t b7t',
    landings: ['on b7 target common'],
  },
  {
    name: 'of two in the window the chord tone',
    chart: II,
    line: '69@3+0.9 72@3.95+0.06 71@4.1+1',
    labels: '5c 4en 3t',
    landings: ['on 3 target step'],
  },
  {
    name: 'a delayed landing two steps on',
    chart: II,
    line: '. . . . A4 - D5 - | C5 A4 G4 -',
    labels: '5c 1c 4sc 9aa 1c',
    landings: ['on 4 scale step'],
  },
  {
    name: 'an anticipation a beat ahead is none at 120',
    chart: II,
    line: '. . . . D5 - B4 - | - - - -',
    labels: '1c 6co',
    landings: ['held 3 target common'],
  },
  {
    name: 'a beat ahead at 240 it is one',
    chart: II,
    tempo: 240,
    line: '. . . . D5 - B4 - | - - - -',
    labels: '1c 3a',
    landings: ['early 3 target skip'],
  },
  // lead-ins
  {
    name: 'two notes of the coming chord',
    chart: 'key: C\n| Cmaj7 | Eb7 |',
    line: '. . . . E4 - Bb4 Db5 | Eb5 -',
    labels: '3t 5c b7t 1c',
    landings: ['on 1 chord-tone step'],
  },
  {
    name: 'half of them foreign is enough',
    chart: 'key: C\n| Cmaj7 | Eb7 |',
    line: '. . . . . . C5 Db5 | Eb5 -',
    labels: '6ab b7t 1c',
  },
  {
    name: 'one of four foreign is not',
    chart: 'key: C\n| Cmaj7 | Eb7 |',
    line: '. . . . G4 A4 C5 Db5 | Eb5 -',
    labels: '5c 6co 1c b9pa 1c',
  },
  {
    name: 'to a tone that is none of the chord there is no lead-in',
    chart: 'key: C\n| Cmaj7 | Eb7 |',
    line: '. . . . . . Bb4 Db5 | C5 -',
    labels: 'b7ou b9ou 6co',
    landings: ['on 6 colour step'],
  },
  // where each of the twelve notes stands
  {
    name: 'tonic major seventh',
    chart: ONE,
    line: twelve('C'),
    labels: '1c b9ou 9co #9ou 3t 4sc #11ou 5c b13ou 6co b7ou 7t',
  },
  {
    name: 'ii: Dorian',
    chart: five('C', 'Dm7', 'Cmaj7'),
    line: twelve('D'),
    labels: '1c b9ou 9co b3t 3ou 4co #11ou 5c b13ou 6co b7t 7ou',
  },
  {
    name: 'V: Mixolydian',
    chart: five('C', 'G7', 'Cmaj7'),
    line: twelve('G'),
    labels: '1c b9sc 9co #9sc 3t 4sc #11ou 5c b13sc 6co b7t 7ou',
  },
  {
    name: 'vi: Aeolian',
    chart: five('C', 'Am7', 'Cmaj7'),
    line: twelve('A'),
    labels: '1c b9ou 9co b3t 3ou 4co #11ou 5c b13sc 6ou b7t 7ou',
  },
  {
    name: 'iii: Phrygian',
    chart: five('C', 'Em7', 'Cmaj7'),
    line: twelve('E'),
    labels: '1c b9sc 9ou b3t 3ou 4co #11ou 5c b13sc 6ou b7t 7ou',
  },
  {
    name: 'IV: Lydian',
    chart: five('C', 'Fmaj7', 'Cmaj7'),
    line: twelve('F'),
    labels: '1c b9ou 9co #9ou 3t 4ou #11co 5c b13ou 6co b7ou 7t',
  },
  {
    name: 'half-diminished on the seventh: Locrian',
    chart: five('C', 'Bm7b5', 'Cmaj7'),
    line: twelve('B'),
    labels: '1c b9sc 9ou b3t 3ou 4co b5t 5ou b13co 6ou b7t 7ou',
  },
  {
    name: 'altered dominant',
    chart: five('C', 'G7alt', 'Cmaj7'),
    line: twelve('G'),
    labels: '1c b9co 9sc #9co 3t 4sc #11co 5sc b13co 6sc b7t 7ou',
  },
  {
    name: 'V in minor: fifth mode of harmonic minor',
    chart: five('Am', 'E7', 'Am7'),
    line: twelve('E'),
    labels: '1c b9co 9ou #9co 3t 4sc #11ou 5c b13co 6ou b7t 7ou',
  },
  {
    name: 'i of a minor key: Aeolian',
    chart: five('Am', 'Am7', 'E7'),
    line: twelve('A'),
    labels: '1c b9ou 9co b3t 3ou 4co #11ou 5c b13sc 6ou b7t 7ou',
  },
  {
    name: 'I7 of a blues',
    chart: `${five('C', 'C7', 'F7')}`.replace('key: C', 'key: C\nfeel: blues'),
    line: twelve('C'),
    labels: '1c b9ou 9co #9sc 3t 4sc #11sc 5c b13ou 6co b7t 7ou',
  },
  {
    name: 'IV7 of a blues',
    chart: `${five('C', 'F7', 'C7')}`.replace('key: C', 'key: C\nfeel: blues'),
    line: twelve('F'),
    labels: '1c b9sc 9co #9ou 3t 4sc #11ou 5c b13ou 6co b7t 7ou',
  },
  {
    name: 'diminished seventh: whole–half',
    chart: five('C', 'Cdim7', 'Cmaj7'),
    line: twelve('C'),
    labels: '1c b9ou 9co b3t 3ou 4co b5c 5sc b13co 6t b7ou 7co',
  },
  {
    name: 'augmented dominant: whole tone',
    chart: five('F', 'C7#5', 'Fmaj7'),
    line: twelve('C'),
    labels: '1c b9sc 9co #9sc 3t 4sc #11co 5sc #5c 6sc b7t 7ou',
  },
  {
    name: 'suspended dominant',
    chart: five('C', 'G7sus4', 'Cmaj7'),
    line: twelve('G'),
    labels: '1c b9ou 9co b3ou 3sc 4t #11ou 5c b13ou 6co b7t 7ou',
  },
  {
    name: 'minor sixth: melodic minor',
    chart: five('Cm', 'Cm6', 'G7'),
    line: twelve('C'),
    labels: '1c b9ou 9co b3t 3ou 4co #11ou 5c b13sc 6t b7sc 7co',
  },
  {
    name: 'major sixth',
    chart: five('C', 'C6', 'G7'),
    line: twelve('C'),
    labels: '1c b9ou 9co #9ou 3t 4sc #11ou 5c b13ou 6t b7ou 7co',
  },
  {
    name: 'a bare triad has its seventh and sixth as colours',
    chart: five('C', 'C', 'G7'),
    line: twelve('C'),
    labels: '1c b9ou 9co #9ou 3t 4sc #11ou 5c b13ou 6co b7ou 7co',
  },
  {
    name: 'minor with a major seventh',
    chart: five('Cm', 'CmMaj7', 'G7'),
    line: twelve('C'),
    labels: '1c b9ou 9co b3t 3ou 4co #11ou 5c b13sc 6co b7sc 7t',
  },
  {
    name: 'dominant flat nine: half–whole',
    chart: five('C', 'G7b9', 'Cmaj7'),
    line: twelve('G'),
    labels: '1c b9co 9sc #9co 3t 4sc #11co 5c b13sc 6co b7t 7ou',
  },
  {
    name: 'dominant sharp eleven: Lydian dominant',
    chart: five('C', 'G7#11', 'Cmaj7'),
    line: twelve('G'),
    labels: '1c b9sc 9co #9sc 3t 4sc #11co 5c b13sc 6co b7t 7ou',
  },
  {
    name: 'a minor seventh over its fourth: suspended on the bass',
    chart: five('Eb', 'Fm7/Bb', 'Ebmaj7'),
    line: twelve('Bb'),
    labels: '1c b9ou 9co b3ou 3sc 4t #11ou 5c b13ou 6co b7t 7ou',
  },
  {
    name: 'a power chord: root and fifth are the targets, its scale the key’s',
    chart: five('C', 'C5', 'G5'),
    line: 'C4 . . G4 . . E4',
    labels: '1t 5t 3sc',
  },
  {
    name: 'the related ii of a secondary dominant is Dorian',
    chart: 'key: C\n| Em7 | A7 | Dm7 | G7 |',
    line: 'C#5 . . F#5 . . G5',
    labels: '6co 9co b3t',
  },
  {
    name: 'a secondary dominant to minor: the fifth mode',
    chart: 'key: C\n| A7 | Dm7 | G7 | Cmaj7 |',
    line: 'C#5 . . F5 . . Bb4',
    labels: '3t b13co b9co',
  },
  {
    name: 'a tritone substitute: Lydian dominant',
    chart: 'key: C\n| Db7 | % | Cmaj7 | % |',
    line: 'G4 . . Eb5 . . Gb4',
    labels: '#11co 9co 4ou',
  },
  {
    name: 'the dominant seven below the tonic: Lydian dominant',
    chart: 'key: C\n| Bb7 | % | Cmaj7 | % |',
    line: 'E4 . . C5 . . Eb4',
    labels: '#11co 9co 4ou',
  },
  {
    name: 'a foreign bass is one more chord tone',
    chart: 'key: C\n| C/D | % | G7 | % |',
    line: 'D4 . . E4 . . F4',
    labels: '9c 3t 4sc',
  },
  // N.C. and pickups
  {
    name: 'a short N.C. lends its notes to the coming chord',
    chart: 'key: C\n| Cmaj7 | Dm7 N.C. | G7 | % |',
    line: 'E4 - - - - - - - | F4 - - - B4 - - - | D5 - -',
    labels: '3t b3t 3t 5c',
  },
  {
    name: 'in two bars of N.C. the home scale speaks',
    chart: 'key: C\n| Cmaj7 | N.C. | % | G7 |',
    line: 'E4 - - - - - - - | A4 . . Eb5',
    labels: '3t nullsc nullou',
  },
  {
    name: 'a pickup belongs to the first chord',
    chart: II,
    line: '65@-1+0.5 69@-0.5+0.5 72@0+1',
    labels: 'b3t 5c b7t',
  },
  // graces
  {
    name: 'a grace into the third of a blues',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '63@0+0.1 64@0.1+1',
    labels: '#9gr 3t',
  },
  {
    name: 'a quarter of a beat is no grace',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '63@0+0.25 64@0.25+1',
    labels: '#9ab 3t',
  },
  {
    name: 'four semitones are no grace',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '60@0+0.1 64@0.1+1',
    labels: '1c 3t',
  },
  {
    name: 'two graces in a chain',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '62@0+0.1 63@0.1+0.1 64@0.2+1',
    labels: '9gr #9gr 3t',
  },
  {
    name: 'the same pitch is no grace',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '64@0+0.1 64@0.1+1',
    labels: '3t 3t',
  },
  {
    name: 'a gap of 50 ms makes it a note',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '63@0+0.1 64@0.2+1',
    labels: '#9ab 3t',
  },
  {
    name: 'a shorter main note takes no grace',
    chart: 'key: C\nfeel: blues\n| C7 | F7 |',
    line: '63@0+0.15 64@0.15+0.1',
    labels: '#9ab 3t',
  },
  {
    name: 'a grace lands with its note',
    chart: II,
    line: '69@3+0.8 70@3.95+0.1 71@4.05+1',
    labels: '5c #9gr 3t',
    landings: ['on 3 target step'],
  },
  // several notes at once
  {
    name: 'the upper of two targets lands',
    chart: II,
    line: 'A4 - . . . . . . | F4+B4 - - -',
    labels: '5c b7t 3t',
    landings: ['on 3 target fresh'],
  },
  {
    name: 'the lower voice lands where it is the target',
    chart: II,
    line: 'A4 - . . . . . . | B3+C5 - - -',
    labels: '5c 3t 4sc',
    landings: ['on 3 target fresh'],
  },
  {
    name: 'a chord tone before a scale tone',
    chart: II,
    line: 'A4 - . . . . . . | D4+C5 - - -',
    labels: '5c 5c 4sc',
    landings: ['on 5 chord-tone fresh'],
  },
  {
    name: 'the top voice carries the line',
    chart: ONE,
    line: 'C4+E4 D4+F4 C4+E4',
    labels: '1c 3t 9co 4ne 1c 3t',
  },
  // how phrases end
  { name: 'on the third, held a beat', chart: ONE, line: 'C4 D4 E4 -', phrases: ['0-2 home'] },
  { name: 'on the root, short and weak', chart: ONE, line: 'E4 D4 C4', phrases: ['0-1.5 home'] },
  { name: 'on the root, on beat three', chart: ONE, line: 'E4 - D4 - C4', phrases: ['0-2.5 home'] },
  { name: 'on the fifth of the tonic', chart: ONE, line: 'C4 D4 E4 G4 -', phrases: ['0-2.5 home'] },
  { name: 'on a short fifth', chart: ONE, line: 'C4 D4 G4', phrases: ['0-1.5 home'] },
  { name: 'on the sixth of a major seventh', chart: ONE, line: 'C4 E4 A4 -', phrases: ['0-2 floats'] },
  { name: 'on the ninth', chart: ONE, line: 'C4 E4 D4 -', phrases: ['0-2 floats'] },
  { name: 'on the fourth', chart: ONE, line: 'C4 E4 F4 -', phrases: ['0-2 asks'] },
  { name: 'on the seventh', chart: ONE, line: 'C4 E4 B4 -', phrases: ['0-2 floats'] },
  {
    name: 'on the third of a dominant',
    chart: 'key: C\n| G7 | Cmaj7 |',
    line: 'F4 D4 B3 -',
    phrases: ['0-2 asks'],
  },
  {
    name: 'on the fifth of a dominant',
    chart: 'key: C\n| G7 | Cmaj7 |',
    line: 'F4 B3 D4 -',
    phrases: ['0-2 asks'],
  },
  {
    name: 'on the seventh of a dominant',
    chart: 'key: C\n| G7 | Cmaj7 |',
    line: 'B3 D4 F4 -',
    phrases: ['0-2 asks'],
  },
  {
    name: 'on the sixth of a sixth chord',
    chart: 'key: C\n| C6 | G7 |',
    line: 'C4 E4 A4 -',
    phrases: ['0-2 home'],
  },
  { name: 'on a flat ninth', chart: 'key: C\n| G7 | Cmaj7 |', line: 'B3 D4 Ab4 -', phrases: ['0-2 asks'] },
  {
    name: 'over no chord',
    chart: 'key: C\n| N.C. | % | Cmaj7 | % |',
    line: 'C4 D4 C4 -',
    phrases: ['0-2 asks'],
  },
  {
    name: 'an anticipated third is home',
    chart: 'key: C\n| G7 | Cmaj7 |',
    line: '. . . . D4 F4 D4 E4 | - -',
    phrases: ['2-5 home'],
  },
  // where phrases part
  {
    name: 'two beats of rest',
    chart: ONE,
    line: 'C4 E4 . . . . G4 E4 - -',
    phrases: ['0-1 home', '3-5 home'],
  },
  { name: 'half a beat is none', chart: ONE, line: 'C4 E4 . G4 E4 -', phrases: ['0-3 home'] },
  {
    name: 'a beat among eighths',
    chart: ONE,
    line: 'C4 D4 E4 F4 . . G4 E4',
    phrases: ['0-2 asks', '3-4 home'],
  },
  {
    name: 'a beat among quarters is none',
    chart: ONE,
    line: 'C4 - D4 - E4 - . . F4 -',
    phrases: ['0-5 asks'],
  },
  {
    name: 'after a long note',
    chart: ONE,
    line: 'C4 D4 E4 - - - F4 G4',
    phrases: ['0-3 home', '3-4 home'],
  },
  {
    name: 'two beats among halves are not long',
    chart: ONE,
    line: 'C4 - - - E4 - - - G4 - - -',
    phrases: ['0-6 home'],
  },
  {
    name: 'at 50 a rest of 0.75 beat',
    chart: ONE,
    tempo: 50,
    line: '60@0+0.25 62@0.25+0.25 64@0.5+0.25 67@1.5+0.25',
    phrases: ['0-0.75 home', '1.5-1.75 home'],
  },
  // shapes
  { name: 'a triad', chart: ONE, line: 'E4 G4 B4', shapes: ['arpeggio minor on 3 0-2'] },
  { name: 'a seventh chord', chart: II, line: 'D4 F4 A4 C5', shapes: ['arpeggio minor-seventh on 1 0-3'] },
  {
    name: 'a triad on the seventh',
    chart: 'key: C\n| G7 | Cmaj7 |',
    line: 'F4 A4 C5',
    shapes: ['arpeggio major on b7 0-2'],
  },
  {
    name: 'an augmented triad names its first note',
    chart: ONE,
    line: 'E4 G#4 C5',
    shapes: ['arpeggio augmented on 3 0-2'],
  },
  { name: 'four scale steps', chart: ONE, line: 'C4 D4 E4 F4', shapes: ['scale-run rising 0-3'] },
  {
    name: 'steps of two scales in turn are no run',
    chart: 'key: A\nfeel: blues\n| A7 | D7 |',
    line: 'A4 C5 D5 E5',
    shapes: [],
  },
  {
    name: 'steps of the blues scale are a run',
    chart: 'key: A\nfeel: blues\n| A7 | D7 |',
    line: 'A4 C5 D5 Eb5',
    shapes: ['scale-run rising 0-3'],
  },
  {
    name: 'groups of three down the scale',
    chart: ONE,
    line: 'C5 B4 A4 B4 A4 G4 A4 G4 F4',
    shapes: ['sequence sequence 0-8', 'moved-shape 3 notes, down 2 1-6'],
  },
  {
    name: 'a triad moved up a half step',
    chart: ONE,
    line: 'C4 E4 G4 Db4 F4 Ab4',
    shapes: ['arpeggio major on 1 0-2', 'moved-shape 3 notes, up 1 0-5', 'arpeggio major on b9 3-5'],
  },
  {
    name: 'two notes three times',
    chart: ONE,
    line: 'C4 G4 D4 A4 E4 B4',
    shapes: ['sequence sequence 0-5', 'moved-shape 2 notes, up 2 0-5'],
  },
  { name: 'two notes twice are no shape', chart: ONE, line: 'C4 G4 D4 A4', shapes: [] },
  // the muted band
  {
    name: 'third and seventh tell the chord, those of a dominant too',
    chart: II,
    line: 'F4 - - - C5 - - - | B4 - - - F4 - - - | E4 - - - B4 - - -',
    heard: 'heard heard heard',
  },
  {
    name: 'one tone of the scale tells nothing',
    chart: II,
    line: 'D4 - - - - - - - | D4 - - - - - - -',
    heard: 'unclear not-heard',
  },
  {
    name: 'silence is silent',
    chart: II,
    line: '. . . . . . . . | B4 - - - F4 - - -',
    heard: 'silent heard',
  },
  {
    name: 'the old chord over the new',
    chart: II,
    line: 'F4 - C5 - F4 - C5 - | A4 - F4 - A4 - C5 -',
    heard: 'heard not-heard',
  },
  {
    name: 'a passing note says nothing',
    chart: II,
    line: 'F4 - - - C5 - - - | B4 - - C5 D5 - - -',
    heard: 'heard heard',
  },
];

/**
 * Worked examples of published textbooks, transposed and rewritten as lines over a chart; sources from memory, no page was at hand.
 */
export const TEXTBOOK_LINES: readonly (LabelledLine & { readonly source: string })[] = [
  {
    name: 'outline 1: down from the third of ii to the third of V',
    source: 'B. Ligon, Connecting Chords with Linear Harmony (1996), outline no. 1',
    chart: II,
    line: 'F5 - E5 - D5 - C5 - | B4 -',
    labels: 'b3t 9pa 1c b7t 3t',
    landings: ['on 3 target step'],
  },
  {
    name: 'outline 2: up the chord of ii, its seventh falls',
    source: 'B. Ligon, the same, outline no. 2',
    chart: II,
    line: 'D4 - F4 - A4 - C5 - | B4 -',
    labels: '1c b3t 5c b7t 3t',
    landings: ['on 3 target step'],
  },
  {
    name: 'outline 3: from the fifth down, the seventh below falls',
    source: 'B. Ligon, the same, outline no. 3',
    chart: II,
    line: 'A4 - F4 - D4 - C4 - | B3 -',
    labels: '5c b3t 1c b7t 3t',
    landings: ['on 3 target step'],
  },
  {
    name: 'the bebop dominant scale puts chord tones on the beats',
    source: 'D. Baker, How to Play Bebop 1 (1985)',
    chart: 'key: C\n| G7 | % | Cmaj7 | % |',
    line: 'G5 F#5 F5 E5 D5 C5 B4 A4 | G4 -',
    labels: '1c 7pa b7t 6pa 5c 4pa 3t 9pa 1c',
  },
  {
    name: 'the bebop major scale does so over a sixth chord',
    source: 'D. Baker, the same',
    chart: 'key: C\n| C6 | % |',
    line: 'C4 D4 E4 F4 G4 G#4 A4 B4 | C5 -',
    labels: '1c 9pa 3t 4pa 5c b13pa 6t 7pa 1c',
  },
  {
    name: 'guide tones: the seventh of V falls to the third of I',
    source: 'M. Levine, The Jazz Theory Book (1995), ii–V–I',
    chart: II,
    line: '. . . . . . . . | B4 - - - - - F4 - | E4 - - -',
    labels: '3t b7t 3t',
    landings: ['on 3 target fresh', 'on 3 target step'],
  },
  {
    name: 'passing tone',
    source: 'S. Kostka and D. Payne, Tonal Harmony, non-chord tones 1',
    chart: 'key: C\n| C | % |',
    line: 'C5 - D5 - E5 -',
    labels: '1c 9pa 3t',
  },
  {
    name: 'neighbouring tone',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| C | % |',
    line: 'E5 - F5 - E5 -',
    labels: '3t 4ne 3t',
  },
  {
    name: 'neighbour group: both neighbours, then the tone',
    source: 'S. Kostka and D. Payne, the same, non-chord tones 2',
    chart: 'key: C\n| C | % |',
    line: 'E5 - F5 D5 E5 -',
    labels: '3t 4en 9en 3t',
  },
  {
    name: '4–3 suspension',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| G7 | C |',
    line: '. . . . F5 - - - | - - E5 -',
    labels: 'b7su 3t',
    landings: ['held 4 scale common'],
  },
  {
    name: '7–8 retardation',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| G7 | C |',
    line: '. . . . B4 - - - | - - C5 -',
    labels: '3re 1c',
    landings: ['held 7 colour common'],
  },
  {
    name: 'appoggiatura: leapt to, resolved by step',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| C | % |',
    line: 'G4 - - - F5 - E5 -',
    labels: '5c 4aa 3t',
  },
  {
    name: 'escape tone: by step, left by leap',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| C | % |',
    line: 'E5 - F5 - C5 -',
    labels: '3t 4sc 1c',
  },
  {
    name: 'anticipation of the tonic',
    source: 'S. Kostka and D. Payne, the same',
    chart: 'key: C\n| G7 | C |',
    line: '. . . . B4 - B4 C5 | - - - -',
    labels: '3t 3t 1a',
    landings: ['early 1 chord-tone step'],
  },
];
