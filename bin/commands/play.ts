import Joi from 'joi';
import { improvise, perform, type StandInProfile } from '@/core/band';
import { writeWav, NOTES_SCHEMA } from '@/core/formats';
import { beatsToSeconds } from '@/core/shared';
import { BadInput } from './exit';
import {
  argumentsOf,
  chartFrom,
  numberFrom,
  onlyFile,
  PLAN_OPTIONS,
  planFrom,
  readFile,
  tempoFrom,
  wholeFrom,
  writeFile,
} from './input';

const RATE = 44_100;
const chance = Joi.number().min(0).max(1);
const profileSchema = Joi.object<Partial<StandInProfile>>({
  meet: chance,
  early: chance,
  late: chance,
  approach: chance,
  breathe: chance,
  density: chance,
  outside: chance,
  changes: Joi.object().pattern(Joi.string().max(40), chance),
  biasMs: Joi.number().min(-200).max(200),
  spreadMs: Joi.number().min(0).max(200),
  swing: Joi.number().min(0.5).max(0.8),
  lowest: Joi.number().integer().min(36).max(90),
  highest: Joi.number().integer().min(40).max(96),
});

/** `play chart.txt --out take.wav --truth truth.json`: the stand-in player's solo and what it truly played. */
export function playCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    tempo: { type: 'string' },
    ...PLAN_OPTIONS,
    seed: { type: 'string' },
    profile: { type: 'string' },
    choruses: { type: 'string' },
    lead: { type: 'string' },
    out: { type: 'string' },
    truth: { type: 'string' },
  });
  if (values.out === undefined && values.truth === undefined)
    throw new BadInput('Name what to write: --out take.wav, --truth truth.json, or both.');
  const chart = chartFrom(onlyFile(positionals, 'the chart text'));
  const tempo = tempoFrom(values.tempo, chart);
  const seed = wholeFrom(values.seed, 'seed', 0, 2 ** 31, 1);
  const leadSeconds = numberFrom(values.lead, 'lead', 0, 60, 0);
  const notes = improvise({
    chart,
    tempo,
    seed,
    plan: planFrom(values, chart),
    choruses: wholeFrom(values.choruses, 'choruses', 1, 100, 1),
    profile: profileFrom(values.profile),
  });
  if (values.out !== undefined)
    writeFile(values.out, writeWav([perform({ notes, tempo, rate: RATE, seed, leadSeconds })], RATE));
  const seconds = (beat: number) => Math.round((leadSeconds + beatsToSeconds(beat, tempo)) * 1e5) / 1e5;
  const truth = notes.map((note) => ({
    onsetSec: seconds(note.onsetBeat),
    offsetSec: seconds(note.onsetBeat + note.durationBeats),
    midi: note.midi,
  }));
  if (values.truth !== undefined)
    writeFile(
      values.truth,
      `${JSON.stringify({ schema: NOTES_SCHEMA, tempo, leadSeconds, notes: truth })}\n`,
    );
  process.stderr.write(`${notes.length} notes\n`);
}

function profileFrom(path: string | undefined): Partial<StandInProfile> {
  if (path === undefined) return {};
  let json: unknown;
  try {
    json = JSON.parse(readFile(path).toString('utf8'));
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(`${path} is not JSON: ${(error as Error).message}.`);
  }
  const { error, value } = profileSchema.validate(json);
  if (error) throw new BadInput(`${path}: ${error.message}.`);
  if (value.lowest !== undefined && value.highest !== undefined && value.highest - value.lowest < 12)
    throw new BadInput(`${path}: "lowest" and "highest" lie less than an octave apart.`);
  return value;
}
