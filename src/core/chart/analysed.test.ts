import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { harmonyOf, readChart, timelineOf } from './index';

/** Short names for the scales of the table. */
const SCALE: Record<string, string> = {
  ion: 'major',
  dor: 'dorian',
  phr: 'phrygian',
  lyd: 'lydian',
  mix: 'mixolydian',
  aeo: 'natural minor',
  loc: 'locrian',
  mel: 'melodic minor',
  lydom: 'lydian dominant',
  hm5: 'fifth mode of harmonic minor',
  alt: 'altered',
  hw: 'half-whole diminished',
  wh: 'whole-half diminished',
  mixb6: 'mixolydian b6',
  wt: 'whole tone',
  lydaug: 'lydian augmented',
  hm5s: '1 b2 #2 3 4 5 b6 b7',
};

// Written by hand from the rules of the theory page before the machine was asked; common practice, no source.
test.each<[string, string, string]>([
  ['a tonic and its ii–V', 'key: G\n| Am7 | D7 | Gmaj7 | Em7 |', 'ii:dor V:mix I:ion vi:aeo'],
  [
    'secondary dominants to ii, iii, IV, V and vi',
    'key: C\n| A7 | Dm7 | B7 | Em7 | C7 | Fmaj7 | D7 | G7 | E7 | Am7 |',
    'V/ii:hm5 ii:dor V/iii:hm5 iii:phr V/IV:mix IV:lyd V/V:mix V:mix V/vi:hm5 vi:aeo',
  ],
  [
    'related iis keep their numerals and are Dorian',
    'key: C\n| Em7 | A7 | Dm7 | Am7 | D7 | Dm7 | G7 | Gm7 | C7 | Fmaj7 |',
    'iii:dor V/ii:hm5 ii:dor vi:dor V/V:mix ii:dor V:mix v:dor V/IV:mix IV:lyd',
  ],
  [
    'half-diminished related iis',
    'key: C\n| Bm7b5 | E7 | Am7 | F#m7b5 | B7b9 | Em7 | Em7b5 | A7b9 | Dm7 | G7 |',
    'vii:loc V/vi:hm5 vi:aeo #iv:loc V/iii:hm5 iii:dor iii:loc V/ii:hm5 ii:dor V:mix',
  ],
  [
    'tritone substitutes of I, ii, V',
    'key: F\n| Gm7 | Gb7 | Fmaj7 | Ab7 | Gm7 | Db7 | C7 | Fmaj7 |',
    'ii:dor subV:lydom I:ion subV/ii:lydom ii:dor subV/V:lydom V:mix I:ion',
  ],
  ['the back door', 'key: Eb\n| Ebmaj7 | Abm7 | Db7 | Ebmaj7 |', 'I:ion iv:dor bVII:lydom I:ion'],
  [
    'borrowed majors',
    'key: D\n| Dmaj7 | Bbmaj7 | Fmaj7 | Ebmaj7 | Gm6 | A7 |',
    'I:ion bVI:lyd bIII:lyd bII:lyd iv:mel V:mix',
  ],
  [
    'diminished passing chords up',
    'key: C\n| Cmaj7 | C#dim7 | Dm7 | D#dim7 | Em7 | F#dim7 | G7 | G#dim7 | Am7 |',
    'I:ion vii/ii:wh ii:dor vii/iii:wh iii:phr vii/V:wh V:mix vii/vi:wh vi:aeo',
  ],
  [
    'a diminished chord that falls or stays',
    'key: C\n| Em7 | Ebdim7 | Dm7 | Cdim7 | Cmaj7 |',
    'iii:phr biii:wh ii:dor i:wh I:ion',
  ],
  [
    'II7 that waits',
    'key: C\n| Cmaj7 | D7 | Dm7 | G7 | Cmaj7 | D7 | Fmaj7 | C6 |',
    'I:ion V/V:mix ii:dor V:mix I:ion II:lydom IV:lyd I:ion',
  ],
  [
    'a minor tune with its dominant in every dress',
    'key: Cm\n| Cm7 | G7 | Cm7 | G9 | Cm7 | G13 | Cm7 | G7b9 | Cm7 | G7alt | Cm7 | G7b9b13 |',
    'i:aeo V:hm5 i:aeo V:mixb6 i:aeo V:mix i:aeo V:hm5 i:aeo V:alt i:aeo V:hm5',
  ],
  [
    'minor: relative major and back',
    'key: Dm\n| Dm7 | Gm7 | C7 | Fmaj7 | Bbmaj7 | Em7b5 | A7 | Dm6 |',
    'i:aeo iv:dor bVII:mix bIII:ion bVI:lyd ii:loc V:hm5 i:mel',
  ],
  [
    'minor: dominants of iv and V, and subV of V',
    'key: Am\n| A7 | Dm7 | B7 | E7 | F7 | E7 | Am7 |',
    'V/iv:hm5 iv:dor V/V:mix V:hm5 subV/V:lydom V:hm5 i:aeo',
  ],
  [
    'minor: v, ♭II and the tonic they colour',
    'key: Em\n| Em7 | Bm7 | Em7 | Fmaj7 |',
    'i:phr v:phr i:phr bII:lyd',
  ],
  ['Dorian by its IV', 'key: Gm\n| Gm7 | C7 | Gm7 | C |', 'i:dor IV:mix i:dor IV:mix'],
  [
    'a blues with everything',
    'key: F\n| F7 | Bb7 | F7 | Cm7 F7 | Bb7 | Bdim7 | F7 | D7 | Gm7 | C7 | Am7 D7 | Gm7 C7 |',
    'I:mix IV:mix I:mix v:dor I:mix IV:mix #iv:wh I:mix V/ii:hm5 ii:dor V:mix iii:dor V/ii:hm5 ii:dor V:mix',
  ],
  [
    'a minor blues',
    'key: Dm\nfeel: blues\n| Dm7 | Gm7 | Dm7 | D7 | Gm7 | % | Dm7 | % | Em7b5 | A7 | Dm7 | A7 |',
    'i:dor iv:dor i:dor V/iv:hm5 iv:dor iv:dor i:dor i:dor ii:loc V:hm5 i:dor V:hm5',
  ],
  [
    'suspended dominants',
    'key: Bb\n| Cm7/F | F7sus4 | F7b9sus | F9sus | Bbmaj7 |',
    'V:mix V:mix V:phr V:mix I:ion',
  ],
  [
    'triads of a folk tune',
    'key: G\n| G | C | D | Em | A | D | G | F |',
    'I:mix IV:lyd V:mix vi:aeo V/V:mix V:mix I:mix bVII:lyd',
  ],
  [
    'triads of a minor rock tune',
    'key: Am\n| Am | C | G | F | Dm | E |',
    'i:aeo bIII:ion bVII:mix bVI:lyd iv:dor V:hm5',
  ],
  [
    'rhythm bridge',
    'key: Bb\n| D7 | % | G7 | % | C7 | % | F7 | % | Bb6 |',
    'V/VI:mix V/VI:mix V/II:mix V/II:mix V/V:mix V/V:mix V:mix V:mix I:ion',
  ],
  [
    'a section in its own key',
    'key: C\n[A]\n| Cmaj7 | Dm7 G7 |\n[B]\nkey: E\n| F#m7 B7 | Emaj7 |\n[A]\n| Cmaj7 | G7 |',
    'I:ion ii:dor V:mix ii:dor V:mix I:ion I:ion V:mix',
  ],
  [
    'N.C. is stepped over',
    'key: C\n| Cmaj7 | A7 N.C. | Dm7 | G7 | N.C. |',
    'I:ion V/ii:hm5 - ii:dor V:mix -',
  ],
  [
    'inversions change nothing',
    'key: C\n| C/E | Am7/G | D7/F# | G7/B | C |',
    'I:ion vi:dor V/V:mix V:mix I:ion',
  ],
  [
    'augmented and altered fifths',
    'key: C\n| Caug | Cmaj7#5 | G7#5 | Cmaj7#11 | G7b5 | C6 |',
    'I:wt I:lydaug V:wt I:lyd V:lydom I:ion',
  ],
  [
    'two dominants a whole step apart',
    'key: C\n| Cmaj7 | Bb7 | Ab7 | G7 |',
    'I:ion bVII:lydom subV/V:lydom V:mix',
  ],
  [
    'IV7 that is no blues',
    'key: C\n| Cmaj7 | F7 | Cmaj7 | Am7 | Dm7 | G7 |',
    'I:ion IV:lydom I:ion vi:aeo ii:dor V:mix',
  ],
  // amendments: temporary tonics, dominants that go to minor, sus2, Mixolydian keys, modes
  [
    'a tonic for a moment',
    'key: Ab\n| Abmaj7 | Dm7 | G7 | Cmaj7 | Fm7 B7 | Em6 | Ebm7 Ab7 |',
    'I:ion #iv:dor V/III:mix III:ion vi:aeo V/bvi:hm5 bvi:mel v:dor I:mix',
  ],
  [
    'altered dominants by where they go',
    'key: C\n| A7b9 | Dm7 | G7b9 | Cmaj7 | E7#9 | Am7 | G7#9 | C6 |',
    'V/ii:hm5 ii:dor V:hw I:ion V/vi:hm5s vi:aeo V:hw I:ion',
  ],
  ['sus2 by its place', 'key: C\n| Csus2 | Fsus2 | Gsus2 | Asus2 |', 'I:ion IV:lyd V:mix VI:aeo'],
  ['a key without its V', 'key: A\n| A | G | D | A |', 'I:mix bVII:lyd IV:lyd I:mix'],
  ['a written mode', 'key: A dorian\n| Am7 | D7 | Bm7 | Em7 | G |', 'i:dor IV:mix ii:phr v:aeo bVII:ion'],
  ['a Mixolydian key', 'key: E mixolydian\n| E | D | A | Bm |', 'I:mix bVII:lyd IV:ion v:dor'],
  [
    'Lydian on the tonic for the whole region',
    'key: C\nhome: C lydian\n| Cmaj7 | Dm7 G7 | Cmaj7 | Am7 |',
    'I:lyd ii:dor V:mix I:lyd vi:aeo',
  ],
  ['a lone dominant and a lone minor', '| G7 | % |', 'I:mix I:mix'],
  [
    'waltz with a dotted bar',
    'key: A\nmeter: 3/4\n| Amaj7 | F#7 . Bm7 | E7 | A6 |',
    'I:ion V/ii:hm5 ii:dor V:mix I:ion',
  ],
])('%s', (_, text, expected) => {
  const chart = unwrap(readChart(text));
  const { readings } = harmonyOf(chart, timelineOf(chart, 120));
  const wanted = expected.split(' ').map((one) => {
    const [degree, scale] = one.split(':');
    return one === '-' ? '-' : `${degree}:${SCALE[scale!]}`;
  });
  expect(readings.map((one) => (one ? `${one.degree}:${one.scale.kind}` : '-')).join(' ')).toBe(
    wanted.join(' '),
  );
});
