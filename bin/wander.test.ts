import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readChart, timelineOf } from '@/core/chart';
import { readMidi, writeLineMusicXml } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { createChart } from '@/server/charts';
import { closeDatabase } from '@/server/db/client';
import { importLine } from '@/server/takeImport';

let folder = '';
const at = (name: string): string => path.join(folder, name);
const wander = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync('node', ['bin/wander', ...args], {
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  return { status, stdout, stderr, json: <T>() => JSON.parse(stdout) as T };
};

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-cli-'));
  writeFileSync(at('chart.txt'), 'title: T\nkey: C\ntempo: 160\n| Dm7 | G7 | Cmaj7 | % |\n');
  wander('theory', 'chord', 'C'); // makes the bundle
}, 30_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('theory: chord and scale, as JSON and as words', () => {
  expect(wander('theory', 'chord', 'Ebm7b5/Bbb', '--json').json()).toEqual({
    root: 'Eb',
    bass: 'Bbb',
    tones: [
      { interval: '1', pc: 3, name: 'Eb' },
      { interval: 'b3', pc: 6, name: 'Gb' },
      { interval: 'b5', pc: 9, name: 'Bbb' },
      { interval: 'b7', pc: 1, name: 'Db' },
    ],
    colours: [],
  });
  expect(wander('theory', 'scale', 'F melodic minor', '--json').json()).toEqual({
    pcs: [5, 7, 8, 10, 0, 2, 4],
    names: ['F', 'G', 'Ab', 'Bb', 'C', 'D', 'E'],
  });
  expect(wander('theory', 'chord', 'C7').stdout).toContain('root: C');
});

test('chart check: bars, or errors with line, column and a suggestion, on both outputs', () => {
  expect(wander('chart', 'check', at('chart.txt'), '--json').json<{ bars: unknown[] }>().bars).toHaveLength(
    4,
  );
  writeFileSync(at('bad.txt'), '| C | F7b |\n');
  const bad = wander('chart', 'check', at('bad.txt'), '--json');
  expect(bad.status).toBe(2);
  expect(bad.json()).toMatchObject({
    ok: false,
    errors: [{ line: 1, column: 9, bar: 2, suggestion: 'F7b9' }],
  });
  expect(bad.stderr).toContain('bar 2, line 1, column 9');
});

test('chart convert: out and in again as MusicXML and MIDI; chart transpose: by key and by semitones', () => {
  for (const name of ['chart.musicxml', 'chart.mid']) {
    expect(wander('chart', 'convert', at('chart.txt'), '--out', at(name)).status).toBe(0);
    const back = wander('chart', 'check', at(name), '--json').json<{
      title: string;
      bars: { chords: { chord: string }[] }[];
    }>();
    expect([back.title, back.bars.map((bar) => bar.chords[0]!.chord)]).toEqual([
      'T',
      ['Dm7', 'G7', 'Cmaj7', 'Cmaj7'],
    ]);
    expect(wander('chart', 'convert', at(name), '--to', 'text').stdout).toContain('| Dm7 | G7 | Cmaj7 |');
  }
  expect(wander('chart', 'transpose', at('chart.txt'), '--to', 'Eb').stdout).toBe(
    'title: T\nkey: Eb\ntempo: 160\n| Fm7 | Bb7 | Ebmaj7 | % |\n',
  );
  expect(wander('chart', 'transpose', at('chart.txt'), '--by', '-1', '--json').json()).toMatchObject({
    ok: true,
    key: 'B major',
  });
  expect(wander('chart', 'transpose', at('chart.txt'), 'Eb').stdout).toContain('| Fm7 | Bb7 |');
  expect(wander('chart', 'convert', at('chart.txt'), 'musicxml', '--json').json()).toMatchObject({
    ok: true,
    format: 'musicxml',
  });
});

test('study: one entry a chord, by function and by plan', () => {
  const study = wander(
    'study',
    at('chart.txt'),
    '--plan',
    'outline',
    '--home',
    'A minor pentatonic',
    '--json',
  ).json<{ key: string; chords: Record<string, unknown>[] }>();
  expect(study.key).toBe('C major');
  expect(study.chords).toHaveLength(4);
  expect(study.chords[1]).toMatchObject({
    bar: 2,
    beat: 4,
    chord: 'G7',
    key: 'C major',
    degree: 'V',
    scale: 'G mixolydian',
    guideTones: [
      { interval: '3', pc: 11, name: 'B' },
      { interval: 'b7', pc: 5, name: 'F' },
    ],
    tellTale: [
      { interval: '3', pc: 11, name: 'B' },
      { interval: 'b7', pc: 5, name: 'F' },
    ],
    targets: [
      { interval: '3', pc: 11, name: 'B' },
      { interval: 'b7', pc: 5, name: 'F' },
    ],
    material: [
      { interval: '1', pc: 7, name: 'G' },
      { interval: '3', pc: 11, name: 'B' },
      { interval: '5', pc: 2, name: 'D' },
      { interval: 'b7', pc: 5, name: 'F' },
    ],
    tensions: [
      { interval: '9', pc: 9, name: 'A' },
      { interval: '6', pc: 4, name: 'E' },
    ],
  });
  for (const { scale } of study.chords)
    expect(wander('theory', 'scale', String(scale), '--json').status).toBe(0);
  expect(wander('study', at('chart.txt')).stdout).toContain('Dm7         ii');
});

test('study: a plan with parts, a home scale and what rubs, as text', () => {
  writeFileSync(at('blues.txt'), 'key: E\nfeel: blues\ntempo: 100\n\n| E7 | A7 | E7 | B7 |\n');
  const said = (...args: string[]) => wander('study', at('blues.txt'), ...args).stdout;
  expect(said('--home', 'E minor pentatonic', '--plan', 'home-tell-tale')).toMatch(
    /A7 .* IV .* A B C# D E G .* land on C# .* home scale lacks C#/,
  );
  expect(
    said('--plan', 'outline', '--part', 'every I: major-minor-blend', '--part', 'chorus 2: free'),
  ).toMatch(/^Outline; major–minor blend on every I; free in chorus 2\.$/m);
  expect(said('--plan', 'home-scale', '--home', 'E major pentatonic')).not.toMatch(/##|bb/);
  const { status, stderr } = wander('study', at('blues.txt'), '--part', 'bars 9-12: outline');
  expect([status, stderr.trim()]).toEqual([2, 'This form has 4 bars: there are no bars 9 to 12.']);
});

// The ten ways of playing of the core's tests, as a player types them.
test.each([
  [['--plan', 'home-tell-tale', '--home', 'E minor pentatonic'], /A7 .*land on C#/],
  [
    [
      '--plan',
      'parallel-mode',
      '--mode',
      'natural minor',
      '--part',
      'every I: home-scale; home=E minor pentatonic',
    ],
    /E7 .*E G A B D .*land on E B D/,
  ],
  [['--plan', 'parallel-mode', '--mode', 'dorian'], /A7 .*A B C D E F# G/],
  [['--plan', 'minor-dominant'], /B7 /],
  [['--plan', 'outline', '--part', 'every I: major-minor-blend'], /E7 .*E F# G G# A B C# D .*land on G#/],
  [['--plan', 'outline', '--part', 'chorus 2: home-scale', '--part', 'chorus 4: free'], /chorus 4/],
  [
    ['--plan', 'outline', '--part', 'every IV: home-scale; home=E minor pentatonic'],
    /A7 .*A B D E G .*land on A E G/,
  ],
  [['--plan', 'sixth-diminished', '--tonic-six'], /E7 /],
  [['--plan', 'scale-per-chord', '--home', 'E lydian'], /home scale E lydian/],
  [['--plan', 'home-scale', '--part', 'every IV: home-scale; aims=5'], /A7 .*land on E/],
] as const)('study %j', (args, expected) => {
  expect(wander('study', at('blues.txt'), ...args).stdout).toMatch(expected);
});

test('neck: chord, scale and path', () => {
  const { shapes } = wander('neck', 'chord', 'Cm7', '--position', '3', '--json').json<{
    shapes: { frets: (number | null)[]; fingers: (number | null)[]; tones: (string | null)[] }[];
  }>();
  expect(shapes[0]!.frets).toHaveLength(6);
  expect(shapes.map((shape) => shape.frets.map((fret) => fret ?? 'x').join(' '))).toContain('x 3 5 3 4 3');
  type Place = { string: number; fret: number; midi: number; name: string };
  const { places, path: up } = wander('neck', 'scale', 'F dorian', '--position', '5', '--json').json<{
    places: Place[];
    path: unknown[];
  }>();
  expect(places.map(({ midi }) => midi)).toEqual([...new Set(places.map(({ midi }) => midi))]);
  expect(places[0]).toMatchObject({ string: 6, fret: 6, name: 'Bb' });
  expect(up.length).toBe(places.length);
  const { shapes: three } = wander(
    'neck',
    'scale',
    'G major',
    '--layout',
    'three',
    '--shape',
    '1',
    '--json',
  ).json<{ shapes: { shape: number; rootString: number; places: Place[] }[] }>();
  expect(three).toHaveLength(1);
  expect(three[0]).toMatchObject({ shape: 1, rootString: 6 });
  expect(three[0]!.places.map(({ string }) => string).join('')).toBe('666555444333222111');
  expect(wander('neck', 'scale', 'A minor pentatonic', '--shape', '1').stdout).toContain(
    'shape 1, root on string 6\nstring 1: 5 A (1), 8 C (4)',
  );
  expect(wander('neck', 'scale', 'C major', '--position', '0').stdout).toContain('string 3: 0 G, 2 A\n');
  expect(wander('neck', 'scale', 'C major', '--layout', 'four').stderr).toContain('three, octave, string');
  writeFileSync(
    at('line.json'),
    '{"notes":[{"onsetBeat":0,"durationBeats":1,"midi":60,"string":3},{"onsetBeat":1,"durationBeats":1,"midi":62}]}',
  );
  expect(wander('neck', 'path', at('line.json'), '--json').json()).toEqual({
    path: [
      { string: 3, fret: 5, finger: 1 },
      { string: 3, fret: 7, finger: 3 },
    ],
    shifts: 0,
  });
  expect(
    wander('neck', 'path', at('line.json'), '--tuning', 'D2 A2 D3 F#3 A3 D4', '--json').json<{
      path: { fret: number }[];
    }>().path[0]!.fret,
  ).toBe(6);
});

test('play, transcribe and analyse: the whole chain on the command line', () => {
  expect(
    wander(
      'play',
      at('chart.txt'),
      '--plan',
      'outline',
      '--seed',
      '7',
      '--choruses',
      '2',
      '--out',
      at('take.wav'),
      '--truth',
      at('truth.json'),
    ).status,
  ).toBe(0);
  const truth = JSON.parse(readFileSync(at('truth.json'), 'utf8')) as {
    notes: { onsetSec: number; midi: number }[];
  };
  const heard = wander('transcribe', at('take.wav'), '--json', '--frames').json<{
    schema: string;
    notes: { onsetSec: number; midi: number }[];
    frames: { hopSec: number; midi: (number | null)[] };
    tuning: { a4: number };
  }>();
  expect(heard.schema).toBe('idle-wander/notes@1');
  expect(
    truth.notes.filter((note) =>
      heard.notes.some(
        (other) => Math.abs(other.onsetSec - note.onsetSec) < 0.05 && other.midi === note.midi,
      ),
    ).length / truth.notes.length,
  ).toBeGreaterThan(0.95);
  expect(heard.frames.midi.length * heard.frames.hopSec).toBeGreaterThan(11);
  const [fromSound, fromTruth] = ['take.wav', 'truth.json'].map((file) =>
    wander(
      'analyse',
      at(file),
      '--chart',
      at('chart.txt'),
      '--tempo',
      '160',
      '--plan',
      'outline',
      '--json',
    ).json<{ changes: { landing: { interval: string } }[]; findings: unknown[] }>(),
  );
  expect(fromSound!.changes.map((change) => change.landing.interval)).toEqual(
    fromTruth!.changes.map((change) => change.landing.interval),
  );
  expect(Array.isArray(fromSound!.findings)).toBe(true);
  expect(wander('analyse', at('truth.json'), '--chart', at('chart.txt')).stdout).toContain('Targets met at');
  const late = wander(
    'analyse',
    at('truth.json'),
    '--chart',
    at('chart.txt'),
    '--offset',
    '-0.1',
    '--json',
  ).json<{ notes: { onsetBeat: number }[] }>();
  const early = wander('analyse', at('truth.json'), '--chart', at('chart.txt'), '--json').json<{
    notes: { onsetBeat: number }[];
  }>();
  expect(late.notes[0]!.onsetBeat - early.notes[0]!.onsetBeat).toBeCloseTo((0.1 * 160) / 60);
}, 60_000);

test('analyse: the page says what to practise, every change, and what it rests on', () => {
  const { stdout, status } = wander('analyse', at('truth.json'), '--chart', at('chart.txt'));
  expect(status).toBe(0);
  for (const title of [
    'FIRST',
    'CHANGES   ● target',
    'CHANGE BY CHANGE',
    'PHRASES',
    'WHAT YOU USED OVER EACH CHORD',
    'HOW YOU GOT THERE',
    'WOULD THE CHORDS BE HEARD WITH THE BAND MUTED?',
    'TIME AND LINE',
    'CHORUS BY CHORUS',
  ])
    expect(stdout).toContain(`\n${title}`);
  const { changes } = wander('analyse', at('truth.json'), '--chart', at('chart.txt'), '--json').json<{
    changes: unknown[];
  }>();
  expect(stdout.match(/^ +\d+:\d\d /gm)).toHaveLength(changes.length);
  for (const line of stdout.split('\n')) expect(line.length).toBeLessThanOrEqual(110);
});

test('analyse: earlier takes are counted in; an offset may be found from the take', () => {
  writeFileSync(at('weak.json'), '{"meet": 0.15}');
  wander(
    'play',
    at('chart.txt'),
    '--profile',
    at('weak.json'),
    '--choruses',
    '3',
    '--truth',
    at('weak-take.json'),
  );
  const together = wander(
    'analyse',
    at('weak-take.json'),
    '--chart',
    at('chart.txt'),
    '--before',
    at('weak-take.json'),
    '--before',
    at('weak-take.json'),
    '--json',
  ).json<{ findings: { kind: string; of: number; sentence: string }[] }>();
  const alone = wander('analyse', at('weak-take.json'), '--chart', at('chart.txt'), '--json').json<{
    findings: { kind: string; of: number; sentence: string }[];
    tooFew: unknown[];
  }>();
  expect(together.findings.length).toBeGreaterThan(0);
  for (const { sentence } of together.findings) expect(sentence).toMatch(/^In 3 takes: /);
  expect(
    wander(
      'analyse',
      at('truth.json'),
      '--chart',
      at('chart.txt'),
      '--before',
      `${at('truth.json')}@80`,
      '--json',
    ).status,
  ).toBe(0);
  expect(
    wander('analyse', at('truth.json'), '--chart', at('chart.txt'), '--before', `${at('truth.json')}@8`)
      .stderr,
  ).toContain('--before takes a number from 20 to 400');
  for (const one of alone.findings)
    expect(together.findings.some(({ kind, of }) => kind === one.kind && of >= one.of)).toBe(true);
  writeFileSync(
    at('late.json'),
    JSON.stringify({
      notes: Array.from({ length: 24 }, (_, index) => ({
        onsetSec: index * 0.1875 + 0.012,
        offsetSec: index * 0.1875 + 0.18,
        midi: 60 + (index % 5),
      })),
    }),
  );
  const { alignment } = wander(
    'analyse',
    at('late.json'),
    '--chart',
    at('chart.txt'),
    '--offset',
    'auto',
    '--json',
  ).json<{ alignment: { estimatedMs: number; appliedMs: number } }>();
  expect([Math.round(alignment.estimatedMs), Math.round(alignment.appliedMs)]).toEqual([12, 12]);
  const far = wander('analyse', at('late.json'), '--chart', at('chart.txt'), '--offset', '-0.04', '--json');
  expect(far.stderr).toContain(
    '52 ms behind the beat. Nothing was moved: measure the latency; if that is latency, give --offset 0.012.',
  );
});

test('analyse: what cannot be judged is refused with its place', () => {
  writeFileSync(at('negative.json'), '{"notes":[{"onsetBeat":0,"durationBeats":-1,"midi":60}]}');
  const negative = wander('analyse', at('negative.json'), '--chart', at('chart.txt'), '--json');
  expect([negative.status, negative.stderr]).toEqual([2, expect.stringContaining('notes.0.durationBeats')]);
  const past = wander('analyse', at('late.json'), '--chart', at('chart.txt'), '--offset', '60');
  expect([past.status, past.stderr]).toEqual([2, expect.stringContaining('past the end of the take')]);
});

test('analyse: superimposed changes are judged beside the written ones', () => {
  writeFileSync(at('over.txt'), '| Abm7 | Db7 | Cmaj7 | % |\n');
  const both = wander(
    'analyse',
    at('truth.json'),
    '--chart',
    at('chart.txt'),
    '--overlay',
    at('over.txt'),
    '--json',
  ).json<{ changes: { to: string }[]; overlay: { changes: { to: string }[] } }>();
  expect([both.changes[0]!.to, both.overlay.changes[0]!.to]).toEqual(['G7', 'Db7']);
  writeFileSync(at('over.txt'), '| Abm7 |\n');
  expect(
    wander('analyse', at('truth.json'), '--chart', at('chart.txt'), '--overlay', at('over.txt')).stderr,
  ).toContain('An overlay covers the same bars');
});

test('band: a WAV of the form', () => {
  expect(
    wander('band', at('chart.txt'), '--tempo', '160', '--choruses', '2', '--out', at('band.wav')).status,
  ).toBe(0);
  expect(readFileSync(at('band.wav')).length).toBe(44 + 2 * Math.ceil((12 + 1.5) * 44_100));
});

test.each([
  ['no command', []],
  ['an unknown command', ['dance']],
  ['a file that is not there', ['transcribe', '/nowhere.wav']],
  ['no file', ['transcribe']],
  ['an option that is none', ['theory', 'chord', 'C', '--loud']],
  ['a chord that is none', ['theory', 'chord', 'H7']],
  ['a scale that is none', ['theory', 'scale', 'C wobbly']],
  ['no chart', ['analyse', 'x.json']],
  ['a plan that is none', ['analyse', 'x.json', '--chart', 'CHART', '--plan', 'magic']],
  ['a tempo out of range', ['band', 'CHART', '--tempo', '9', '--out', '/tmp/x.wav']],
  ['nothing to write', ['band', 'CHART']],
  ['a chart that is a sound', ['transcribe', 'CHART']],
  ['choruses that are no number', ['band', 'CHART', '--choruses', 'many', '--out', 'x']],
  ['a format that is none', ['chart', 'convert', 'CHART', '--to', 'papyrus']],
  ['nowhere to transpose to', ['chart', 'transpose', 'CHART']],
  ['strings out of order', ['neck', 'chord', 'C', '--tuning', 'E4 B3 G3 D3 A2 E2']],
  ['a neck of nothing', ['neck', 'fly']],
  ['notes that are none', ['neck', 'path', 'CHART']],
  ['a target that is none', ['study', 'CHART', '--plan', 'single-target', '--target', 'ninth']],
  ['a drill that is none', ['drill', 'CHART', '--kind', 'sprint']],
  ['bars that are not there', ['drill', 'CHART', '--bars', '3-999']],
  ['a place that cannot be written', ['band', 'CHART', '--out', '/nowhere/x.wav']],
])('%s: exit 2, a message, nothing on the standard output', (_, args) => {
  const { status, stdout, stderr } = wander(...args.map((arg) => (arg === 'CHART' ? at('chart.txt') : arg)));
  expect(status).toBe(2);
  expect(stderr.trim().length).toBeGreaterThan(5);
  if (args.length > 0) expect(stdout).toBe('');
});

test('drill: what to do, a line that passes it, and an attempt held against its rule', () => {
  expect(wander('drill', '--list').stdout.trim().split('\n').length).toBeGreaterThan(20);
  const { status, json } = wander(
    'drill',
    at('chart.txt'),
    '--kind',
    'ladder-thirds',
    '--tempo',
    '72',
    '--json',
  );
  const drill = json<{
    words: string;
    tempo: number;
    example: { onsetBeat: number; durationBeats: number; midi: number }[];
  }>();
  expect([status, drill.words, drill.tempo]).toEqual([0, 'Land on the third at every change.', 72]);
  writeFileSync(at('attempt.json'), JSON.stringify({ notes: drill.example }));
  const judged = (kind: string) =>
    wander(
      'drill',
      at('chart.txt'),
      '--kind',
      kind,
      '--tempo',
      '72',
      '--notes',
      at('attempt.json'),
      '--json',
    ).json<{ passed: boolean; met: number; of: number }>();
  expect(judged('ladder-thirds')).toMatchObject({ passed: true });
  expect(judged('ladder-roots')).toMatchObject({ passed: false });
});

test('drill: a wish in words, a home scale and a level; an attempt goes round as often as it was played', () => {
  const drill = (...args: string[]) => wander('drill', at('chart.txt'), ...args, '--json');
  const wish = drill('--words', 'enclose the root', '--level', 'easy').json<{
    name: string;
    example: unknown[];
  }>();
  expect([wish.name, wish.example.length > 4]).toEqual(['Enclose the root', true]);
  expect(wander('drill', at('chart.txt'), '--words', 'more feeling').stderr).toContain(
    'no rule that can be heard',
  );
  const home = drill('--kind', 'home-tell-tale', '--home', 'Bb minor pentatonic').json<{ plan: unknown }>();
  expect(home.plan).toEqual({ id: 'home-tell-tale', home: 'Bb minor pentatonic' });
  const short = drill('--kind', 'call-and-answer', '--bars', '1-2').json<{
    choruses: number;
    example: unknown[];
  }>();
  expect(short.choruses).toBeGreaterThan(1);
  writeFileSync(at('short.json'), JSON.stringify({ notes: short.example }));
  const again = drill('--kind', 'call-and-answer', '--bars', '1-2', '--notes', at('short.json'));
  expect(again.json<{ passed: boolean }>().passed).toBe(true);
});

test('a profile is checked field by field', () => {
  writeFileSync(at('profile.json'), '{"meet": 2}');
  expect(
    wander('play', at('chart.txt'), '--profile', at('profile.json'), '--truth', at('t.json')).stderr,
  ).toContain('"meet" must be less than or equal to 1');
  writeFileSync(at('profile.json'), '{"meet": 1, "changes": {"G7": 0}}');
  expect(
    wander('play', at('chart.txt'), '--profile', at('profile.json'), '--truth', at('t.json')).status,
  ).toBe(0);
});

test('a silent recording is no failure, but is said', () => {
  const bytes = Buffer.alloc(44 + 88_200);
  readFileSync(at('take.wav')).copy(bytes, 0, 0, 44);
  bytes.writeUInt32LE(88_200, 40);
  writeFileSync(at('silent.wav'), bytes);
  const { status, stderr, json } = wander('transcribe', at('silent.wav'), '--json');
  expect([status, json<{ notes: unknown[] }>().notes, stderr.includes('silent')]).toEqual([0, [], true]);
});

test('what is kept: a take out in five formats, all of it backed up and restored from another folder', async () => {
  const env = { ...process.env, DATABASE_URL: `file:${at('kept.db')}` };
  const kept = (...args: string[]) =>
    spawnSync('node', [path.resolve('bin/wander'), ...args], { encoding: 'buffer', env, cwd: folder });
  const made = kept('backup', 'empty.zip');
  expect(made.stderr.toString()).toContain('All that is kept is in');
  process.env.DATABASE_URL = env.DATABASE_URL;
  const chart = unwrap(readChart(readFileSync(at('chart.txt'), 'utf8')));
  const line = writeLineMusicXml({
    chart,
    timeline: timelineOf(chart, 160),
    tempo: 160,
    title: 'Line',
    choruses: 1,
    swing: null,
    notes: [
      { onsetBeat: 0, durationBeats: 1, midi: 62 },
      { onsetBeat: 1, durationBeats: 1, midi: 65 },
    ],
  });
  const { id } = await importLine(new TextEncoder().encode(line), {
    chart: (await createChart(readFileSync(at('chart.txt'), 'utf8'))).id,
    tempo: 160,
    name: 'Brought in',
  });
  closeDatabase();
  const exported = (format: string, ...more: string[]) =>
    kept('export', '1', '--format', format, ...more).stdout;
  expect(readMidi(new Uint8Array(exported('midi')))).toMatchObject({
    ok: true,
    value: [{ midi: 62 }, { midi: 65 }],
  });
  expect(exported('musicxml').toString()).toContain('<score-partwise');
  expect(exported('csv').toString().split('\n')[0]).toContain('interval');
  expect(exported('csv', '--changes').toString().split('\n')[0]).toContain('from');
  expect(
    (JSON.parse(kept('export', `/takes/${id}`, '--format', 'json').stdout.toString()) as { notes: unknown[] })
      .notes,
  ).toHaveLength(2);
  const refused = (...args: string[]) => {
    const { status, stderr } = kept(...args);
    return [status, stderr.toString().trim().split('\n').pop()];
  };
  expect(refused('export', '1', '--format', 'wav')).toEqual([2, expect.stringContaining('sound')]);
  expect(refused('export', '9', '--format', 'midi')).toEqual([2, expect.stringContaining('does not exist')]);
  expect(refused('export', '1', '--format', 'doc')).toEqual([
    2,
    expect.stringContaining('midi, musicxml, csv, json, wav'),
  ]);
  expect(refused('restore', 'nowhere.zip')).toEqual([2, expect.stringContaining('cannot be read')]);
  expect(kept('restore', 'empty.zip', '--json').status).toBe(0);
  expect(refused('export', '1', '--format', 'midi')).toEqual([2, expect.stringContaining('does not exist')]);
}, 60_000);

test('a reader that closes the pipe ends the command quietly', () => {
  const line = `node bin/wander analyse ${at('truth.json')} --chart ${at('chart.txt')} --json | head -c 40`;
  const { stdout, stderr, status } = spawnSync('bash', ['-o', 'pipefail', '-c', line], { encoding: 'utf8' });
  expect([stdout.length, stderr, status]).toEqual([40, '', 0]);
});

test('help: every command with an example that is itself a call of that command; the version; completion', () => {
  const all = wander('--help').stdout;
  const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string };
  expect(wander('--version').stdout).toBe(`wander ${version}\n`);
  for (const name of ['transcribe', 'study', 'drill', 'completion']) {
    expect(all).toContain(`  ${name} `);
    const { status, stdout } = wander(name, '--help');
    expect([status, /Example:\n {2}.*wander (\w+)/.exec(stdout)?.[1]]).toEqual([0, name]);
  }
  expect(wander('help', 'neck').stdout).toBe(wander('neck', '--help').stdout);
  // the script is run by a shell of its own: what it offers after `wander neck`
  const offered = spawnSync(
    'bash',
    [
      '-c',
      `${wander('completion', 'bash').stdout}\nCOMP_WORDS=(wander neck s); COMP_CWORD=2; _wander; echo "\${COMPREPLY[@]}"`,
    ],
    { encoding: 'utf8' },
  );
  expect(offered.stdout).toBe('scale\n');
});

test('errors end with what to try', () => {
  expect(wander('anlyse').stderr).toBe(
    'There is no command “anlyse”. Try: wander analyse\nSee: wander --help\n',
  );
  expect(wander('study', at('chart.txt'), '--hme', 'A blues').stderr).toBe(
    'There is no option --hme. Try: --home\nSee: wander study --help\n',
  );
  expect(wander('constructor').status).toBe(2);
});

test('a drill is printed as names and tablature; a pipe that closes early is no failure', () => {
  const { stdout } = wander('drill', at('chart.txt'), '--kind', 'ladder-thirds', '--seed', '3');
  const rows = stdout.split('\n');
  const strings = rows.filter((row) => /^[EADGB] +\|/.test(row));
  expect(strings.map((row) => row[0]).slice(0, 6)).toEqual(['E', 'B', 'G', 'D', 'A', 'E']);
  // all rows of a line are as long, and every name above has a fret below it
  const [names = ''] = rows.slice(rows.findIndex((row) => row.startsWith('E  |')) - 1);
  const frets = strings.slice(0, 6).flatMap((row) => row.match(/\d+/g) ?? []);
  expect(new Set(strings.slice(0, 6).map((row) => row.length)).size).toBe(1);
  expect(names.trim().split(/\s+/)).toHaveLength(frets.length);
  const piped = spawnSync('bash', ['-c', `set -o pipefail; node bin/wander drill --list | head -n 1`], {
    encoding: 'utf8',
  });
  expect([piped.status, piped.stderr]).toEqual([0, '']);
});

test('neck path: the hand that is asked for, or a word for what it may be', () => {
  writeFileSync(
    at('scale.json'),
    JSON.stringify({ notes: [55, 57, 59, 60, 62, 64].map((midi, onsetBeat) => ({ onsetBeat, midi })) }),
  );
  const fretsOf = (...how: string[]) =>
    wander('neck', 'path', at('scale.json'), ...how, '--json')
      .json<{ path: { fret: number }[] }>()
      .path.map(({ fret }) => fret);
  expect(Math.max(...fretsOf())).toBeLessThan(Math.min(...fretsOf('--area', 'high')));
  expect(fretsOf('--open', 'avoided')).not.toContain(0);
  const wrong = wander('neck', 'path', at('scale.json'), '--hand', 'huge');
  expect([wrong.status, wrong.stderr]).toEqual([2, expect.stringContaining('small, usual, large')]);
});
