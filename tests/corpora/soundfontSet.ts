import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMidi, type MidiEvent } from 'midi-file';
import { readWav, toMono } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { centsAt, type Line, type StringNote } from './line';

/** Banks of recorded instruments, all of them Debian packages; only the first was heard when the ears were fitted first. */
export const BANKS = {
  /** fluid-soundfont-gm: FluidR3 GM (MIT). */
  fluid: '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  /** timgm6mb-soundfont. */
  small: '/usr/share/sounds/sf2/TimGM6mb.sf2',
  /** musescore-general-soundfont-small: MuseScore General (MIT). */
  general: '/usr/share/sounds/sf3/MuseScore_General_Lite.sf3',
  /** freepats, played by timidity: patches, no soundfont. */
  patches: '/etc/timidity/freepats.cfg',
  /** csound-soundfont: sf_GMbank. */
  other: '/usr/share/sounds/sf2/sf_GMbank.sf2',
} as const;
export type Bank = keyof typeof BANKS;
const SOUNDFONT = BANKS.fluid;
const RATE = 44_100;

/** General MIDI programs, counted from 0 (General MIDI 1 sound set). */
export const PROGRAMS = {
  nylonString: 24,
  steelString: 25,
  jazz: 26,
  clean: 27,
  muted: 28,
  overdriven: 29,
  distorted: 30,
  harpsichord: 6,
  harp: 46,
  banjo: 105,
} as const;

/** What is missing for this set, in words; null where everything is there. */
export function soundfontMissing(): string | null {
  if (!existsSync(SOUNDFONT)) return `${SOUNDFONT} is not installed (Debian package fluid-soundfont-gm)`;
  for (const [tool, flag] of [
    ['fluidsynth', '--version'],
    ['sox', '--version'],
  ] as const)
    if (spawnSync(tool, [flag]).status !== 0) return `${tool} is not installed (Debian package of that name)`;
  return null;
}

/** Renders a line with a soundfont, each string on its own channel, bends and slides by pitch wheel. Muted strokes are very short soft notes of the muted guitar. */
export function renderSoundfont(
  line: Line,
  program: number,
  detuneCents = 0,
  bank: Bank = 'fluid',
): { samples: Float32Array; rate: number } {
  const early = bank === 'patches' ? SILENT_START : [];
  return render(midiOf(line, program, detuneCents, early), line.seconds, BANKS[bank]);
}

/** Runs a take through sox: `effects` as on its command line. */
export function sox(samples: Float32Array, rate: number, effects: readonly string[]): Float32Array {
  const raw = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
  const format = ['-t', 'f32', '-r', String(rate), '-c', '1'];
  const out = execFileSync('sox', ['-D', ...format, '-', ...format, '-', ...effects], {
    input: raw,
    maxBuffer: 1 << 28,
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  return new Float32Array(out.buffer.slice(out.byteOffset, out.byteOffset + out.byteLength));
}

const TICKS_PER_SECOND = 1000;
const WHEEL_SEMITONES = 12;

export type Timed = { readonly tick: number; readonly event: MidiEvent };

function midiOf(line: Line, program: number, detuneCents: number, early: readonly Timed[]): Uint8Array {
  const timed: Timed[] = [...early];
  const channels = Array.from({ length: 15 }, (_, index) => (index < 9 ? index : index + 1));
  for (const channel of channels) timed.push(...setUp(channel, channel === 15 ? 28 : program));
  const melodic = channels.slice(0, 14);
  let turn = 0;
  for (let index = 0; index < line.strings.length; index++) {
    const note = line.strings[index]!;
    if (note.attack === 'hammer' || note.attack === 'pull') continue;
    const channel = note.attack === 'ghost' ? 15 : melodic[turn++ % melodic.length]!;
    timed.push(...noteEvents(note, legatoAfter(line.strings, index), channel, detuneCents));
  }
  return writeTimed(timed);
}

/** timidity leaves out what is before the first note: one of no volume on the drums' channel begins at once. */
const SILENT_START: readonly Timed[] = [
  { type: 'controller', controllerType: 7, value: 0 },
  { type: 'noteOn', noteNumber: 60, velocity: 1 },
].map((event) => ({ tick: 0, event: { ...event, deltaTime: 0, channel: 9 } as MidiEvent }));

/** Ticks are milliseconds: 1000 to the quarter note at one quarter a second. */
export function writeTimed(timed: readonly Timed[]): Uint8Array {
  const ordered = [...timed].sort((a, b) => a.tick - b.tick);
  let last = 0;
  const track: MidiEvent[] = [{ deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat: 1_000_000 }];
  for (const { tick, event } of ordered) {
    track.push({ ...event, deltaTime: Math.max(0, tick - last) } as MidiEvent);
    last = Math.max(last, tick);
  }
  track.push({ deltaTime: 0, meta: true, type: 'endOfTrack' });
  return Uint8Array.from(
    writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: TICKS_PER_SECOND }, tracks: [track] }),
  );
}

/** Program and a pitch wheel of ±12 semitones (registered parameter 0). */
function setUp(channel: number, program: number): Timed[] {
  const control = (controllerType: number, value: number): Timed => ({
    tick: 0,
    event: { deltaTime: 0, type: 'controller', channel, controllerType, value } as MidiEvent,
  });
  return [
    { tick: 0, event: { deltaTime: 0, type: 'programChange', channel, programNumber: program } as MidiEvent },
    control(101, 0),
    control(100, 0),
    control(6, WHEEL_SEMITONES),
    control(38, 0),
  ];
}

function legatoAfter(strings: readonly StringNote[], index: number): StringNote[] {
  const after: StringNote[] = [];
  for (
    let next = index + 1;
    next < strings.length && (strings[next]!.attack === 'hammer' || strings[next]!.attack === 'pull');
    next++
  )
    after.push(strings[next]!);
  return after;
}

/** Hammered and pulled notes are the same string at another pitch: a step of the wheel within 6 ms. */
function noteEvents(
  note: StringNote,
  legato: readonly StringNote[],
  channel: number,
  detuneCents: number,
): Timed[] {
  const until = legato.at(-1)?.until ?? note.until;
  const from = Math.round(note.at * TICKS_PER_SECOND);
  const to = Math.round(until * TICKS_PER_SECOND);
  const velocity = Math.max(
    20,
    Math.min(127, Math.round((note.attack === 'ghost' ? 60 : 88) * Math.sqrt(note.gain))),
  );
  const events: Timed[] = [
    { tick: from, event: { deltaTime: 0, type: 'noteOn', channel, noteNumber: note.midi, velocity } },
    { tick: to, event: { deltaTime: 0, type: 'noteOff', channel, noteNumber: note.midi, velocity: 0 } },
  ];
  let last = NaN;
  for (let tick = from - 2; tick < to; tick += 2) {
    const seconds = tick / TICKS_PER_SECOND;
    const current = legato.findLast(({ at }) => seconds >= at);
    const step = current ? (current.midi - note.midi) * 100 : 0;
    const cents = centsAt(note.curve, seconds - note.at) + step + detuneCents;
    const value = Math.max(-8192, Math.min(8191, Math.round((cents / (WHEEL_SEMITONES * 100)) * 8192)));
    if (value !== last) events.push({ tick, event: { deltaTime: 0, type: 'pitchBend', channel, value } });
    last = value;
  }
  return events;
}

/** Renders once and keeps the sound in the temporary folder: the same bytes need no second run. */
export function render(
  midi: Uint8Array,
  seconds: number,
  soundfont: string = SOUNDFONT,
): { samples: Float32Array; rate: number } {
  const folder = join(tmpdir(), 'idle-wander-corpora');
  mkdirSync(folder, { recursive: true });
  const hash = createHash('sha256').update(midi);
  // the first bank keeps the names it had when there was no other
  if (soundfont !== SOUNDFONT) hash.update(soundfont);
  const name = hash.digest('hex').slice(0, 24);
  const wav = join(folder, `${name}.wav`);
  if (!existsSync(wav)) {
    const [source, partial] = ['mid', 'part.wav'].map((end) =>
      join(folder, `${name}.${process.pid}.${end}`),
    ) as [string, string];
    writeFileSync(source, midi);
    const [player, ...options] =
      soundfont === BANKS.patches ? patchPlayer(partial) : fontPlayer(partial, soundfont);
    execFileSync(player!, [...options, source], { stdio: 'ignore' });
    renameSync(partial, wav);
  }
  const samples = toMono(unwrap(readWav(new Uint8Array(readFileSync(wav)))));
  return { samples: samples.slice(0, Math.ceil(seconds * RATE)), rate: RATE };
}

/** Command lines without the file that is to be played. */
const fontPlayer = (out: string, soundfont: string): string[] =>
  `fluidsynth -ni -q -R 0 -C 0 -g 0.6 -r ${RATE} -T wav -O float -F`.split(' ').concat(out, soundfont);
const patchPlayer = (out: string): string[] =>
  `timidity -c ${BANKS.patches} -s ${RATE} -Ow2M -EFreverb=0 -EFchorus=0 -EFdelay=0 -o`
    .split(' ')
    .concat(out);
