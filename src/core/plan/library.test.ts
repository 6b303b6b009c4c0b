import { expect, test } from '@jest/globals';
import { Chord as TonalChord, Note as TonalNote, Scale as TonalScale } from 'tonal';
import { unwrap } from '../shared';
import { guideTones, noteName, readChord, readScale, scaleNotes } from '../music';
import { harmonyOf, LIBRARY, readChart, avoidNotes, tellTaleTones, timelineOf } from '../chart';
import { planOf } from './index';

const names = (notes: readonly { note: Parameters<typeof noteName>[0] }[]) =>
  notes.map(({ note }) => noteName(note)).join(' ');
const HOME = (text: string) => unwrap(readScale(text));
const chord = (symbol: string) => unwrap(readChord(symbol));

// Check values of the theory page, and rows written by hand beside them. Common practice, no source.
test.each([
  ['A7', 'A minor pentatonic', 'C#', 'C# G'],
  ['D7', 'A minor pentatonic', 'F#', 'F# C'],
  ['E7', 'A minor pentatonic', 'G# B', 'G# D'],
  ['Bb7', 'Bb blues', 'D', 'D Ab'],
  ['Eb7', 'Bb blues', 'G', 'G Db'],
  ['F7', 'Bb blues', 'A C', 'A Eb'],
  ['G7', 'Bb blues', 'G B D', 'B F'],
  ['Fmaj7', 'C major', '', 'A E'],
  ['Em7', 'C major', '', 'G D'],
  ['Bm7b5', 'C major', '', 'D F A'],
  ['G7', 'C natural minor', 'B', 'B F'],
  ['C6', 'C major', '', 'E A'],
])('%s over %s: tell-tale %s, guide tones %s', (symbol, home, telling, guides) => {
  expect([names(tellTaleTones(chord(symbol), HOME(home))), names(guideTones(chord(symbol)))]).toEqual([
    telling,
    guides,
  ]);
});

// Rub tones: home-scale tones a semitone from the third or seventh that are no chord tones.
test.each([
  ['A7', 'A minor pentatonic', 'C D'],
  ['D7', 'A minor pentatonic', 'G'],
  ['E7', 'A minor pentatonic', 'A G'],
  ['Bb7', 'Bb blues', 'Db Eb'],
  ['Eb7', 'Bb blues', 'Ab'],
  ['Fmaj7', 'C major', ''],
  ['Cmaj7', 'C major', 'F'],
  ['G7', 'C natural minor', 'C Bb'],
])('%s over %s: rubs %s', (symbol, home, expected) => {
  const scale = HOME(home);
  const notes = scaleNotes(scale);
  const rubbing = avoidNotes(chord(symbol), scale).map((pc) => noteName(notes[scale.pcs.indexOf(pc)]!));
  expect(rubbing.sort().join(' ')).toBe(expected.split(' ').sort().join(' '));
});

/** tonal's names for the scales of the chord-scale table. */
const TONAL: Record<string, string> = {
  'natural minor': 'minor',
  'lydian dominant': 'lydian dominant',
  'fifth mode of harmonic minor': 'phrygian dominant',
  'half-whole diminished': 'half-whole diminished',
  'whole-half diminished': 'diminished',
  'mixolydian b6': 'mixolydian b6',
  blues: 'minor blues',
};
const chromas = (notes: readonly string[]) =>
  notes.map((note) => TonalNote.chroma(note)!).sort((a, b) => a - b);

// Outside check: tonal 6.4.3 (MIT) builds the same tones for every chord and scale of every form in the
// library.
test.each(LIBRARY.map(({ id, text }) => [id, text]))(
  '%s: outline, scale per chord and tell-tale tones as a general-purpose library builds them',
  (_, text) => {
    const chart = unwrap(readChart(text));
    const timeline = timelineOf(chart, 120);
    const harmony = harmonyOf(chart, timeline);
    const [outline, scales] = [
      planOf({ id: 'outline' }, harmony, timeline),
      planOf({ id: 'scale-per-chord' }, harmony, timeline),
    ];
    harmony.readings.forEach((reading, index) => {
      if (!reading) return;
      const { chord: own, scale } = reading;
      const theirs = TonalChord.get(own.symbol.replace('dim7', 'o7'));
      const tones = chromas(
        theirs.notes.filter((_note, place) => !/^(?:9|11|13|2M|9M|9m)/.test(theirs.intervals[place]!)),
      );
      expect([own.symbol, [...outline.cells[index]!.material].sort((a, b) => a - b)]).toEqual([
        own.symbol,
        tones,
      ]);
      const built = TonalScale.get(`${noteName(scale.root)} ${TONAL[scale.kind] ?? scale.kind}`).notes;
      if (built.length > 0)
        expect([scale.name, [...scales.cells[index]!.material].sort((a, b) => a - b)]).toEqual([
          scale.name,
          chromas(built),
        ]);
      const home = harmony.homeScales[index]!;
      const homeTones = chromas(
        TonalScale.get(`${noteName(home.root)} ${TONAL[home.kind] ?? home.kind}`).notes,
      );
      expect(
        tellTaleTones(own, home)
          .map((tone) => tone.pc)
          .sort((a, b) => a - b),
      ).toEqual(tones.filter((pc) => !homeTones.includes(pc)));
    });
  },
);
