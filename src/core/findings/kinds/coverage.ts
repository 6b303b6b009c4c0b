import { intervalOver, noteName, readChord } from '../../music';
import { unwrap, elementAt, present } from '../../shared';
import { fitsOneLocation } from '../../neck';
import { intervalWord, times, typeset } from '../words';
import { measure, type FindingContext, type Measure } from './finding';

/** A tell-tale tone is missed in ten notes, another chord tone in fifteen. */
const IGNORED_IN = 10;
const NEVER_IN = 15;
/**
 * Tones that chance alone would be expected to leave out in a take like this: more than that and nothing is
 * said.
 */
const LIKELY = 0.2;
const LIKELY_TELLING = 0.6;
/** A chord tone that makes up less of the notes than this is seldom heard. */
const SELDOM = 0.05;

/**
 * Chord tones that never sounded: tell-tale tones of secondary and borrowed chords in ten notes, the others in
 * fifteen, where chance would hardly leave them out.
 */
export function tonesNeverPlayed(context: FindingContext): Measure[] {
  const { report, harmony, plan } = context;
  const asked = report.coverage.flatMap((cover) => {
    const chord = unwrap(readChord(cover.chord));
    const at = harmony.readings.findIndex((one) => one?.chord.symbol === cover.chord);
    const home = elementAt(harmony.homeScales, at).pcs;
    // what the plan leaves out is not asked for
    const played = new Set(
      plan.cells.flatMap(({ material }, index) =>
        harmony.readings[index]?.chord.symbol === cover.chord ? material : [],
      ),
    );
    return chord.tones
      .filter(({ pc }) => played.has(pc))
      .map((tone) => ({
        cover,
        tone,
        telling: !home.includes(tone.pc),
        name: intervalOver(chord, tone.pc),
        met: cover.byInterval[intervalOver(chord, tone.pc)]?.count ?? 0,
      }));
  });
  const enough = (one: (typeof asked)[number]) => one.cover.count >= (one.telling ? IGNORED_IN : NEVER_IN);
  return asked.flatMap((one): Measure[] => {
    const { cover, tone, telling, name, met } = one;
    const note = typeset(noteName(tone.note));
    // how often this player takes such a tone elsewhere, and how many tones could have been missed as well
    const elsewhere = asked.filter((other) => other !== one && other.tone.role === tone.role);
    const rate =
      (elsewhere.reduce((sum, other) => sum + other.met, 0) + 1) /
      (elsewhere.reduce((sum, other) => sum + other.cover.count, 0) + 7);
    const byChance =
      (1 - rate) ** cover.count * asked.filter((other) => other.telling === telling && enough(other)).length;
    return measure(context, {
      kind: telling ? 'change-ignored' : 'tone-never-played',
      where: { chord: cover.chord, bars: [] },
      met,
      of: cover.count,
      limit: SELDOM,
      raised: met === 0 && enough(one) && byChance <= (telling ? LIKELY_TELLING : LIKELY),
      title: `${note} over ${typeset(cover.chord)}`,
      sentence: `Over ${typeset(cover.chord)} you ${met === 0 ? `never played ${note}, its ${intervalWord(name)},` : `played ${note}, its ${intervalWord(name)}, ${times(met)}`} in ${cover.count} notes.`,
      ...(telling ? { detail: 'It is the note your home scale lacks there.' } : {}),
      drill: { chord: cover.chord, plan: 'single-target', target: note, pass: 'land on it in 10 of 12' },
      weight:
        Math.min(1, (4 * cover.count) / Math.max(1, report.notes.length)) *
        chanceAside(cover.count) *
        (telling ? 0.75 : 0.16),
    });
  });
}

/** One tone of seven is missed by chance in (6/7)^n of n notes: what is likely chance weighs little. */
const chanceAside = (count: number): number => (1 - (6 / 7) ** count) ** 4;

const isPlain = (note: FindingContext['report']['notes'][number]): boolean =>
  note.function !== 'grace' && note.chord !== null;

/** The home scale alone, over chords that ask for more. */
export function homeScaleOnly(context: FindingContext): Measure[] {
  const { report, harmony, plan } = context;
  if (['home-scale', 'major-minor-blend', 'free'].includes(plan.id)) return [];
  const homes = new Map(
    harmony.readings.flatMap((reading, index) =>
      reading
        ? [
            [
              reading.chord.symbol,
              { chord: reading.chord, home: elementAt(harmony.homeScales, index).pcs },
            ] as const,
          ]
        : [],
    ),
  );
  const asking = report.notes.filter((note) => {
    const here = isPlain(note) ? homes.get(present(note.chord)) : undefined;
    return here?.chord.tones.some((tone) => !here.home.includes(tone.pc));
  });
  const beyond = asking.filter(
    (note) =>
      !present(homes.get(present(note.chord))).home.includes(((Math.round(note.midi) % 12) + 12) % 12),
  );
  return measure(context, {
    kind: 'home-scale-only',
    where: { bars: [] },
    met: beyond.length,
    of: asking.length,
    limit: 0.06,
    worth: 1,
    title: 'Beyond the home scale',
    sentence: `Over the chords your home scale does not cover, ${beyond.length} of ${asking.length} notes left it.`,
    drill: {
      plan: 'home-tell-tale',
      target: 'the tones it lacks',
      pass: 'one tell-tale tone in every such bar',
    },
  });
}

export function outlineOnly(context: FindingContext): Measure[] {
  const { report, plan } = context;
  if (plan.id === 'outline' || plan.id === 'single-target') return [];
  const all = report.notes.filter(isPlain);
  const other = all.filter((note) => note.tier !== 'chord');
  return measure(context, {
    kind: 'outline-only',
    where: { bars: [] },
    met: other.length,
    of: all.length,
    limit: 0.1,
    worth: 0.5,
    title: 'Between the chord tones',
    sentence: `${all.length - other.length} of ${all.length} notes were chord tones; nothing led from one to the next.`,
    drill: { plan: 'scale-per-chord', target: 'a step between two chord tones', pass: 'join 8 of 12' },
  });
}

const ENOUGH_NOTES = 40;
/** Two octaves are a wide range. */
const WIDE = 24;

const rangeOf = (pitches: readonly number[]): number =>
  pitches.reduce((most, pitch) => Math.max(most, pitch), -Infinity) -
  pitches.reduce((least, pitch) => Math.min(least, pitch), Infinity);

export function narrowRange(context: FindingContext): Measure[] {
  const pitches = context.report.notes
    .filter((note) => note.top && note.function !== 'grace')
    .map((note) => note.midi);
  const range = rangeOf(pitches);
  return pitches.length < ENOUGH_NOTES
    ? []
    : measure(context, {
        kind: 'narrow-range',
        where: { bars: [] },
        met: Math.min(range, WIDE),
        of: WIDE,
        limit: 0.5,
        raised: range <= 12,
        title: 'A wider range',
        sentence: `All ${pitches.length} notes lay within ${range} semitones.`,
        drill: {
          target: 'an octave higher every other phrase',
          pass: 'use two octaves in a chorus',
          tempo: context.tempo,
        },
        weight: 0.55,
      });
}

/** The whole line under one location of the hand. */
export function onePosition(context: FindingContext): Measure[] {
  const line = context.report.notes.filter(
    (note) => note.top && note.function !== 'grace' && note.midi >= 40 && note.midi <= 86,
  );
  const range = rangeOf(line.map((note) => note.midi));
  if (line.length < ENOUGH_NOTES || range <= 12 || range > 28) return [];
  const inOne = fitsOneLocation(line.map((note) => Math.round(note.midi)));
  return measure(context, {
    kind: 'one-position',
    where: { bars: [] },
    met: 0,
    of: line.length,
    limit: 1,
    raised: inOne,
    title: 'Another position',
    sentence: `All ${line.length} notes can be played in one position of the neck.`,
    drill: { target: 'the next position up', pass: 'one chorus each' },
    weight: 0.03,
  });
}
