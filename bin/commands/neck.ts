import Joi from 'joi';
import {
  chordShapes,
  pathOf,
  placesOf,
  readTuning,
  STANDARD_FRETS,
  STANDARD_TUNING,
  underHand,
  writeTuning,
  type Instrument,
  type NeckNote,
} from '@/core/neck';
import { degreeName, noteName, readChord, readScale, scaleNotes } from '@/core/music';
import { BadInput, BadUsage, valueOf } from './exit';
import { argumentsOf, onlyFile, printJson, readFile, wholeFrom } from './input';
import { elementAt } from '@/core/shared';

/** `neck chord "Cm7"`, `neck scale "F dorian"`, `neck path notes.json` (contract in docs/architecture.md). */
export function neckCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    position: { type: 'string' },
    tuning: { type: 'string' },
    json: { type: 'boolean' },
  });
  const [what, ...rest] = positionals;
  const instrument: Instrument = {
    tuning: values.tuning === undefined ? STANDARD_TUNING : valueOf(readTuning(values.tuning)),
    frets: STANDARD_FRETS,
  };
  const position =
    values.position === undefined ? undefined : wholeFrom(values.position, 'position', 0, STANDARD_FRETS);
  let result: Answer | null;
  if (what === 'chord') result = chordOn(only(rest, 'chord "Cm7"'), instrument, position);
  else if (what === 'scale') result = scaleOn(only(rest, 'scale "F dorian"'), instrument, position);
  else if (what === 'path') result = pathThrough(onlyFile(rest, 'the notes'), instrument);
  else result = null;
  if (!result) throw new BadUsage('Say neck chord "Cm7", neck scale "F dorian" or neck path notes.json.');
  if (values.json) printJson(result.json);
  else process.stdout.write(`${result.lines.join('\n')}\n`);
}

type Answer = { readonly json: object; readonly lines: readonly string[] };

function only(words: readonly string[], example: string): string {
  const [word, ...more] = words;
  if (word === undefined || more.length > 0) throw new BadUsage(`Say neck ${example}.`);
  return word;
}

function chordOn(symbol: string, instrument: Instrument, position: number | undefined): Answer {
  const chord = valueOf(readChord(symbol));
  const shapes = chordShapes(chord, { instrument, ...(position === undefined ? {} : { position }) });
  return {
    json: { shapes },
    lines: shapes.map(
      ({ frets, fingers, tones }) =>
        `${line(frets)}   fingers ${line(fingers)}   ${tones.map((tone) => tone ?? '-').join(' ')}`,
    ),
  };
}

const line = (values: readonly (number | null)[]): string =>
  values.map((value) => String(value ?? 'x').padStart(2)).join(' ');

function scaleOn(name: string, instrument: Instrument, position: number | undefined): Answer {
  const scale = valueOf(readScale(name));
  const notes = scaleNotes(scale);
  const from = Math.max(1, (position ?? 1) - 1);
  const inside =
    position === undefined
      ? placesOf(scale.pcs, 0, instrument.frets, instrument.tuning)
      : placesOf(scale.pcs, from, Math.min(instrument.frets, position + 4), instrument.tuning);
  const places = inside.map((place) => {
    const at = scale.pcs.indexOf(((place.midi % 12) + 12) % 12);
    return {
      string: place.string,
      fret: place.fret,
      midi: place.midi,
      degree: degreeName(elementAt(scale.degrees, at)),
      name: noteName(elementAt(notes, at)),
    };
  });
  const ascending = (position === undefined ? [] : underHand(scale.pcs, Math.max(1, position), instrument))
    .sort((a, b) => a.midi - b.midi)
    .filter((place, index, all) => index === 0 || place.midi !== elementAt(all, index - 1).midi);
  const fingered =
    ascending.length === 0
      ? null
      : pathOf(
          ascending.map((place, index) => ({ onsetBeat: index, midi: place.midi })),
          { instrument },
        );
  return {
    json: {
      scale: scale.name,
      tuning: writeTuning(instrument.tuning),
      places,
      ...(fingered?.ok ? { path: fingered.value.path } : {}),
    },
    lines: instrument.tuning.map(
      (_, index) =>
        `string ${index + 1}: ${places
          .filter((place) => place.string === index + 1)
          .map((place) => `${place.fret} ${place.name}`)
          .join(', ')}`,
    ),
  };
}

type NotesBody = { notes: (NeckNote & Record<string, unknown>)[] };
const whole = () => Joi.number().integer();
const notesBody = Joi.object<NotesBody>({
  notes: Joi.array()
    .max(20_000)
    .required()
    .items(
      Joi.object({
        onsetBeat: Joi.number().required(),
        durationBeats: Joi.number().min(0),
        midi: Joi.number().min(0).max(127).required(),
        string: whole().min(1).max(10),
        fret: whole().min(0).max(36),
        finger: whole().min(0).max(4),
      }).unknown(true),
    ),
}).unknown(true);

function pathThrough(file: string, instrument: Instrument): Answer {
  let json: unknown;
  try {
    json = JSON.parse(readFile(file).toString('utf8'));
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(`${file} does not hold JSON: ${(error as Error).message}.`);
  }
  const { error, value } = notesBody.validate(json, { convert: false });
  if (error) throw new BadInput(`${file}: ${error.details[0]?.path.join('.') ?? ''}: ${error.message}.`);
  const found = valueOf(pathOf(value.notes, { instrument }));
  return {
    json: found,
    lines: [
      ...found.path.map(
        ({ string, fret, finger }, index) =>
          `note ${index + 1}: string ${string}, fret ${fret}, finger ${finger}`,
      ),
      `${found.shifts} ${found.shifts === 1 ? 'shift' : 'shifts'}`,
    ],
  };
}
