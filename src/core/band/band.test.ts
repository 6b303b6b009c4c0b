import { expect, test } from '@jest/globals';
import { unwrap, modulo, pitchClassOf } from '../shared';
import { isDominant, pitchClass } from '../music';
import { changesOf, harmonyOf, isOnStrongBeat, readChart, soundingAt, timelineOf } from '../chart';
import { bandOver } from '../../../tests/corpora/band';
import { analyse } from '../analyse';
import { transcribe } from '../transcribe';
import {
  arrange,
  bandFeel,
  bandRests,
  BAND_FEELS,
  improvise,
  lineupOf,
  offBeat,
  perform,
  pluckString,
  type BandEvent,
} from './index';
import { voiceLed } from './keys/voicing';
import { seededRandom } from '../shared';
import { readChord } from '../music';

const SWING =
  'key: Bb\ntempo: 120\nfeel: swing\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |';
const OTHER = (feel: string, head = '') => `${head}${SWING.replace('feel: swing', `feel: ${feel}`)}`;
const FEELS: [string, string][] = [
  ['swing', SWING],
  ['straight', OTHER('straight')],
  ['shuffle', OTHER('blues shuffle')],
  ['bossa', OTHER('bossa')],
  ['ballad', OTHER('ballad')],
  ['funk', OTHER('funk')],
  ['waltz', OTHER('waltz', 'meter: 3/4\n')],
  ['five', OTHER('swing', 'meter: 5/4\n')],
  ['waltz', 'meter: 3/4\nfeel: waltz\n| Cmaj7 | A7b9 | Dm7/G | G7 |'],
  ['swing', 'feel: swing\n| Dm7 . . G7 | C/E A7b9 | Ebm7b5/Bbb | Db7 C6 . Bm7b5 |'],
];
const bandOf = (text: string, choruses = 2, seed = 1) =>
  arrange({ chart: unwrap(readChart(text)), tempo: 120, choruses, seed });
type Pitched = Extract<BandEvent, { midi: number }>;
const partOf = (events: readonly BandEvent[], part: 'bass' | 'chords') =>
  events.filter((event): event is Pitched => event.part === part);

test('the chart names the feel', () => {
  expect(
    [
      'swing',
      'blues',
      'blues shuffle',
      'straight',
      'bossa',
      'jazz blues swing',
      'ballad',
      'funk',
      'anything',
    ].map((feel) => bandFeel(unwrap(readChart(`feel: ${feel}\n| C |`)))),
  ).toEqual(['swing', 'shuffle', 'shuffle', 'straight', 'bossa', 'swing', 'ballad', 'funk', 'straight']);
  expect(FEELS.map(([, text]) => bandFeel(unwrap(readChart(text))))).toEqual(FEELS.map(([feel]) => feel));
  expect(new Set(FEELS.map(([feel]) => feel))).toEqual(new Set(BAND_FEELS));
  expect([offBeat('straight', 120), offBeat('swing', 80) > offBeat('swing', 240)]).toEqual([0.5, true]);
  expect([
    lineupOf('swing', 80).drums,
    lineupOf('swing', 160).drums,
    lineupOf('funk', 90).bass,
    lineupOf('bossa', 130, 'guitar').chords,
  ]).toEqual(['brushes', 'sticks', 'electric', 'nylon-guitar']);
});

// Tested as music, as the page on the band asks.
test.each(FEELS)('%s: the bass has the root at every change and stays in its range', (_, text) => {
  const chart = unwrap(readChart(text));
  const timeline = timelineOf(chart, 120);
  const bass = partOf(bandOf(text), 'bass');
  for (const change of changesOf(timeline, 2)) {
    const note = bass.find((event) => Math.abs(event.beat - change.at) < 1e-6)!;
    expect([change.at, pitchClassOf(note.midi)]).toEqual([change.at, pitchClass(change.to.bass)]);
  }
  expect(bass.every(({ midi }) => midi >= 28 && midi <= 52)).toBe(true);
});

test.each(FEELS)(
  '%s: nothing of the bass lies outside the chord-scale on a strong beat, whatever the seed',
  (_, text) => {
    const chart = unwrap(readChart(text));
    const timeline = timelineOf(chart, 120);
    const harmony = harmonyOf(chart, timeline);
    for (let seed = 1; seed <= 6; seed++)
      for (const note of partOf(bandOf(text, 3, seed), 'bass').filter(
        ({ beat }) => beat < 3 * timeline.formBeats - 1e-6 && isOnStrongBeat(timeline, beat, 0.01),
      )) {
        const { span: stretch } = soundingAt(timeline, note.beat);
        const reading = harmony.readings[stretch.index]!;
        const allowed = [...reading.scale.pcs, ...reading.chord.tones.map((tone) => tone.pc)];
        expect([seed, note.beat, allowed.includes(pitchClassOf(note.midi))]).toEqual([seed, note.beat, true]);
      }
  },
);

test('swing: the bass walks in quarters, and goes into more than a quarter of the changes by a half step', () => {
  const timeline = timelineOf(unwrap(readChart(SWING)), 120);
  const bass = partOf(bandOf(SWING, 4), 'bass');
  for (let beat = 0; beat < 4 * 48; beat++)
    expect(bass.some((note) => Math.abs(note.beat - beat) < 1e-6)).toBe(true);
  const changes = changesOf(timeline, 4);
  const halfSteps = changes.filter(({ at }) => {
    const [before, on] = [
      bass.find(({ beat }) => Math.abs(beat - at + 1) < 1e-6),
      bass.find(({ beat }) => Math.abs(beat - at) < 1e-6),
    ];
    return before && on && Math.abs(before.midi - on.midi) === 1;
  });
  expect(halfSteps.length).toBeGreaterThan(changes.length / 4);
});

test.each(FEELS)(
  '%s: no chord goes missing, and every voice belongs to the chord it sounds over or is pushed into',
  (_, text) => {
    const chart = unwrap(readChart(text));
    const timeline = timelineOf(chart, 120);
    const chords = partOf(bandOf(text, 3, 5), 'chords').filter(
      ({ beat }) => beat < 3 * timeline.formBeats - 1e-6,
    );
    const allowedIn = (index: number) => {
      const { chord } = timeline.chordSpans[index % timeline.chordSpans.length]!;
      return chord ? [...chord.tones, ...chord.colours].map((tone) => tone.pc) : [];
    };
    for (let chorus = 0; chorus < 3; chorus++)
      for (const stretch of timeline.chordSpans) {
        const [from, to] = [stretch.start, stretch.end].map((beat) => beat + chorus * timeline.formBeats) as [
          number,
          number,
        ];
        const inside = chords.filter(({ beat }) => beat >= from - 1e-6 && beat < to - 1e-6);
        const own = inside.filter(({ midi }) => allowedIn(stretch.index).includes(pitchClassOf(midi)));
        expect([
          stretch.chord!.symbol,
          own.length > 0 || isRepeat(timeline.chordSpans, stretch.index),
        ]).toEqual([stretch.chord!.symbol, true]);
        for (const { midi, beat } of inside)
          expect([
            beat,
            allowedIn(stretch.index).includes(pitchClassOf(midi)) ||
              (to - beat <= 0.5 + 1e-6 && allowedIn(stretch.index + 1).includes(pitchClassOf(midi))),
          ]).toEqual([beat, true]);
      }
  },
);

const isRepeat = (stretches: readonly { chord: { symbol: string } | null }[], index: number): boolean =>
  stretches[index]!.chord!.symbol === stretches[index - 1]?.chord?.symbol;

test('voices move by less than an octave, and carry third and seventh', () => {
  let hand = [57, 60, 64, 67];
  for (const symbol of [
    'Dm7',
    'G7',
    'Cmaj7',
    'A7b9',
    'Ebm7b5',
    'Ab13',
    'Db6',
    'F#m7',
    'B7alt',
    'E',
    'G7sus4',
  ]) {
    const chord = unwrap(readChord(symbol));
    const next = voiceLed(chord, hand);
    for (const midi of next)
      expect(Math.min(...hand.map((before) => Math.abs(before - midi)))).toBeLessThan(12);
    if (isDominant(chord))
      for (const tone of chord.tones.filter((one) => ['third', 'sus', 'seventh'].includes(one.role)))
        expect(next.map(pitchClassOf)).toContain(tone.pc);
    expect(next.every((midi) => midi >= 48 && midi <= 78)).toBe(true);
    hand = next;
  }
});

test('drums keep time, the count-in clicks before bar 1, and a seed decides everything', () => {
  const events = bandOf(SWING, 1);
  expect(events.filter(({ part }) => part === 'click').map(({ beat }) => beat)).toEqual([-4, -3, -2, -1]);
  for (let beat = 0; beat < 48; beat++)
    expect(events.some((event) => event.part === 'drums' && Math.abs(event.beat - beat) < 1e-6)).toBe(true);
  expect(bandOf(SWING, 2, 5)).toEqual(bandOf(SWING, 2, 5));
  expect(bandOf(SWING, 2, 5)).not.toEqual(bandOf(SWING, 2, 6));
});

test.each(FEELS)(
  '%s: the last chord ends it on the first beat after the form, and a fill leads into the top',
  (_, text) => {
    const { formBeats } = timelineOf(unwrap(readChart(text)), 120);
    const events = bandOf(text, 2);
    expect(
      new Set(
        events
          .filter(({ beat }) => beat >= 2 * formBeats - 1e-6)
          .map(({ beat, part }) => [beat, part].join()),
      ),
    ).toEqual(new Set(['drums', 'bass', 'chords'].map((part) => [2 * formBeats, part].join())));
    expect(
      events.filter(
        (event) =>
          event.part === 'drums' &&
          ['snare', 'brush-tap', 'tom-high', 'tom-low'].includes(event.drum) &&
          event.beat >= formBeats - 2 &&
          event.beat < formBeats,
      ).length,
    ).toBeGreaterThan(0);
  },
);

test('the band drops out on chosen choruses and bars, and nothing rings into them; the click plays the beats it is told', () => {
  const timeline = timelineOf(unwrap(readChart(SWING)), 120);
  const request = { chart: unwrap(readChart(SWING)), tempo: 120, choruses: 3, seed: 2 };
  const events = arrange({ ...request, dropOut: { choruses: [2], bars: [4] }, click: 'two-and-four' });
  const band = events.filter(({ part }) => part !== 'click');
  const silent = (beat: number) =>
    (beat >= 48 && beat < 96) || (modulo(beat, 48) >= 12 && modulo(beat, 48) < 16);
  expect(band.filter(({ beat }) => silent(beat))).toEqual([]);
  expect(band.filter((event) => 'beats' in event && silent(event.beat + event.beats - 0.01))).toEqual([]);
  expect(band.some(({ beat }) => beat >= 96 && beat < 100)).toBe(true);
  // the same stretches as a review draws them, neighbours joined
  expect(bandRests(timeline, 3, { choruses: [2], bars: [4] })).toEqual([
    [12, 16],
    [48, 96],
    [108, 112],
  ]);
  expect(bandRests(timeline, 3, {})).toEqual([]);
  const clicks = (click: 'two-and-four' | 'one' | 'every') =>
    arrange({ ...request, click })
      .filter(({ part, beat }) => part === 'click' && beat >= 0)
      .map(({ beat }) => beat);
  expect(clicks('two-and-four').slice(0, 3)).toEqual([1, 3, 5]);
  expect(clicks('one')).toEqual(Array.from({ length: 36 }, (_, bar) => bar * 4));
  expect(clicks('every')).toHaveLength(3 * timeline.formBeats);
});

test('nothing sounds in N.C.', () => {
  const events = bandOf('feel: swing\n| C7 | N.C. | F7 |', 1);
  expect(
    events.filter(
      (event) =>
        (event.part === 'bass' || event.part === 'chords') && event.beat >= 4 && event.beat < 8 - 1e-6,
    ),
  ).toEqual([]);
});

test('the band renders to sound: beats where they belong, muted parts silent, never clipped', () => {
  const chart = unwrap(readChart(SWING));
  const render = (mix: object) => bandOver(chart, { tempo: 120, choruses: 1, seed: 1, seconds: 8, mix });
  const full = render({});
  expect(full.length).toBe(Math.ceil(8.1 * 44_100));
  expect(full.every((value) => Math.abs(value) < 1)).toBe(true);
  const energy = (samples: Float32Array, from: number, to: number) =>
    samples.subarray(from * 44_100, to * 44_100).reduce((sum, value) => sum + value * value, 0);
  expect(energy(full, 0.1, 8)).toBeGreaterThan(20);
  expect(energy(render({ drums: 0, bass: 0, chords: 0, click: 0 }), 0, 8)).toBe(0);
  // parts are balanced: none of the three is more than 12 dB over another
  const levels = ['drums', 'bass', 'chords'].map(
    (part) => 10 * Math.log10(energy(render({ drums: 0, bass: 0, chords: 0, click: 0, [part]: 1 }), 0.1, 8)),
  );
  expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(12);
  // the same band gives the same samples
  expect(render({})).toEqual(full);
});

test('a slide and a bend sound as they are written: where the string comes from, and where it settles', () => {
  const played = [
    { onsetBeat: 0, durationBeats: 2, midi: 64, slide: { fromMidi: 62, seconds: 0.09 } },
    {
      onsetBeat: 2,
      durationBeats: 2,
      midi: 67,
      bend: [
        [0.1, 0],
        [0.3, 200],
      ] as const,
    },
  ];
  const rate = 22_050;
  const samples = perform({ notes: played, tempo: 90, rate, seed: 4 });
  const { notes } = transcribe(samples, rate);
  expect(notes).toHaveLength(2);
  expect(notes[0]!.slide?.fromMidi).toBe(62);
  expect(notes[0]!.midi).toBe(64);
  // heard by the pitch where it settles
  const heard = notes[1]!.bend!.map(([, cents]) => cents);
  expect(notes[1]!.midi).toBe(69);
  expect(Math.abs(Math.max(...heard) - Math.min(...heard) - 200)).toBeLessThan(20);
  // as long as without them
  const plain = perform({
    notes: played.map(({ onsetBeat, durationBeats, midi }) => ({ onsetBeat, durationBeats, midi })),
    tempo: 90,
    rate,
    seed: 4,
  });
  expect(samples.length).toBe(plain.length);
});

test('a plucked string sounds its pitch within 3 cents, from low E to high E', () => {
  for (const midi of [40, 47, 52, 59, 64, 71, 76, 83, 88]) {
    const samples = pluckString(
      { midi, rate: 44_100, held: 0.6, release: 0.1, force: 0.6, at: 0.15, decay: 3 },
      seededRandom(midi),
    );
    const { notes } = transcribe(samples, 44_100, { tuning: 440 });
    expect([midi, notes.length, notes[0]?.midi]).toEqual([midi, 1, midi]);
    expect(Math.abs(notes[0]!.cents)).toBeLessThanOrEqual(3);
  }
});

// The stand-in player: what is planted comes back.
const chart = unwrap(readChart(SWING));
const play = (profile: object, seed = 3, choruses = 4) =>
  improvise({ chart, tempo: 96, choruses, plan: { id: 'scale-per-chord' }, seed, profile });
const judge = (notes: ReturnType<typeof play>) =>
  analyse({ chart, tempo: 96, notes, choruses: 4, plan: { id: 'scale-per-chord' } });

test('same seed, same solo; another seed, another one', () => {
  expect(play({})).toEqual(play({}));
  expect(play({})).not.toEqual(play({}, 4));
});

test('how often it meets targets is how often it was told to', () => {
  const rate = (meet: number) => {
    const { summary } = judge(play({ meet, early: 0, late: 0 }));
    return summary.targetsMet / summary.judgedChanges;
  };
  expect(rate(1)).toBeGreaterThan(0.9);
  expect(rate(0.5)).toBeGreaterThan(0.3);
  expect(rate(0.5)).toBeLessThan(0.75);
  expect(rate(0)).toBeLessThan(0.15);
});

test('pushed ahead, and late, as often as told', () => {
  const count = (profile: object, timing: string) =>
    judge(play({ meet: 1, ...profile })).changes.filter((change) => change.landing.timing === timing).length;
  expect(count({ early: 0.8, late: 0 }, 'early')).toBeGreaterThan(20);
  expect(count({ early: 0, late: 0 }, 'early')).toBeLessThan(4);
  expect(count({ early: 0, late: 0.9 }, 'late')).toBeGreaterThan(12);
});

test('its timing bias and spread come back', () => {
  const { time } = judge(play({ biasMs: 20, spreadMs: 10, swing: 0.6 }));
  expect(time.offsetMs).toBeGreaterThan(12);
  expect(time.offsetMs).toBeLessThan(28);
  expect(time.swing).toBeGreaterThan(1.35); // 0.6 of the beat to 0.4: 1.5 to 1
  expect(time.swing).toBeLessThan(1.65);
});

test('it stays in its range and plays one note at a time', () => {
  const notes = play({ lowest: 55, highest: 72 });
  expect(notes.every(({ midi }) => midi >= 53 && midi <= 74)).toBe(true);
  notes
    .slice(1)
    .forEach((note, index) =>
      expect(note.onsetBeat).toBeGreaterThanOrEqual(
        notes[index]!.onsetBeat + notes[index]!.durationBeats - 1e-6,
      ),
    );
});

test('what it plays is heard: at least 95 % of its notes from the sound alone', () => {
  const notes = play({}, 9, 1);
  const samples = perform({ notes, tempo: 96, rate: 44_100, seed: 9, leadSeconds: 0.3 });
  const heard = transcribe(samples, 44_100, { tuning: 440 }).notes;
  const found = notes.filter((note) =>
    heard.some(
      (other) =>
        Math.abs(other.onsetSec - 0.3 - (note.onsetBeat * 60) / 96) < 0.05 && other.midi === note.midi,
    ),
  );
  expect(found.length / notes.length).toBeGreaterThanOrEqual(0.95);
  expect(modulo(heard.length - notes.length + 3, 1000)).toBeLessThanOrEqual(6);
});
