import Joi from 'joi';
import {
  chordShapes,
  HAND_SIZES,
  NECK_AREAS,
  OPEN_STRINGS,
  pathOf,
  placesOf,
  readTuning,
  SCALE_LAYOUTS,
  scaleShapes,
  scaleUnderHand,
  shapeNear,
  STANDARD_FRETS,
  STANDARD_TUNING,
  writeTuning,
  USUAL_HABITS,
  type FretPosition,
  type HandHabits,
  type Instrument,
  type NeckNote,
  type RunTouch,
  type ScaleLayout,
} from '@/core/neck';
import { degreeName, noteName, readChord, readScale, scaleNotes } from '@/core/music';
import { BadInput, BadUsage, valueOf } from './exit';
import { argumentsOf, onlyFile, printJson, readFile, wholeFrom } from './input';
import { elementAt, pitchClassOf } from '@/core/shared';

/** `neck chord "Cm7"`, `neck scale "F dorian"`, `neck path notes.json` (contract in docs/architecture.md). */
export function neckCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    position: { type: 'string' },
    tuning: { type: 'string' },
    layout: { type: 'string' },
    shape: { type: 'string' },
    hand: { type: 'string' },
    open: { type: 'string' },
    area: { type: 'string' },
    json: { type: 'boolean' },
  });
  const [what, ...rest] = positionals;
  const instrument: Instrument = {
    tuning: values.tuning === undefined ? STANDARD_TUNING : valueOf(readTuning(values.tuning)),
    frets: STANDARD_FRETS,
    habits: habitsFrom(values),
  };
  const position =
    values.position === undefined ? undefined : wholeFrom(values.position, 'position', 0, STANDARD_FRETS);
  let result: Answer | null;
  if (what === 'chord') result = chordOn(only(rest, 'chord "Cm7"'), instrument, position);
  else if (what === 'scale')
    result = scaleOn(only(rest, 'scale "F dorian"'), {
      instrument,
      position,
      layout: values.layout === undefined ? undefined : layoutFrom(values.layout),
      shape: values.shape === undefined ? undefined : wholeFrom(values.shape, 'shape', 1, 12),
    });
  else if (what === 'path') result = pathThrough(onlyFile(rest, 'the notes'), instrument);
  else result = null;
  if (!result) throw new BadUsage('Say neck chord "Cm7", neck scale "F dorian" or neck path notes.json.');
  if (values.json) printJson(result.json);
  else process.stdout.write(`${result.lines.join('\n')}\n`);
}

/** What the hand likes, where it is said. */
function habitsFrom(values: { hand?: string; open?: string; area?: string }): HandHabits {
  return {
    size: habit('hand', values.hand, HAND_SIZES) ?? USUAL_HABITS.size,
    open: habit('open', values.open, OPEN_STRINGS) ?? USUAL_HABITS.open,
    area: habit('area', values.area, NECK_AREAS) ?? USUAL_HABITS.area,
  };
}

function habit<T extends string>(name: string, given: string | undefined, all: readonly T[]): T | undefined {
  const found = all.find((one) => one === given);
  if (given !== undefined && found === undefined)
    throw new BadInput(`--${name} ${given} is not known. Say one of: ${all.join(', ')}.`);
  return found;
}

function layoutFrom(word: string): ScaleLayout {
  const layout = SCALE_LAYOUTS.find((one) => one === word);
  if (!layout) throw new BadUsage(`There is no layout “${word}”. Layouts: ${SCALE_LAYOUTS.join(', ')}.`);
  return layout;
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

type Shown = {
  readonly string: number;
  readonly fret: number;
  readonly midi: number;
  readonly finger?: number;
  readonly degree: string;
  readonly name: string;
};

type ScaleRequest = {
  readonly instrument: Instrument;
  readonly position: number | undefined;
  readonly layout: ScaleLayout | undefined;
  readonly shape: number | undefined;
};

/** Every place on the neck; the notes under a hand, each once; or the movable shapes of a layout. */
function scaleOn(name: string, { instrument, position, layout, shape }: ScaleRequest): Answer {
  const scale = valueOf(readScale(name));
  const notes = scaleNotes(scale);
  const shown = (place: RunTouch | FretPosition): Shown => {
    const at = scale.pcs.indexOf(pitchClassOf(place.midi));
    return {
      string: place.string,
      fret: place.fret,
      midi: place.midi,
      ...('finger' in place ? { finger: place.finger } : {}),
      degree: degreeName(elementAt(scale.degrees, at)),
      name: noteName(elementAt(notes, at)),
    };
  };
  const head = { scale: scale.name, tuning: writeTuning(instrument.tuning) };
  if (layout !== undefined || shape !== undefined) {
    const all = scaleShapes(scale.pcs, { instrument, layout: layout ?? 'position' })
      .filter(({ number }) => shape === undefined || number === shape)
      .map((one) => (position === undefined ? one : shapeNear(one, position, instrument)));
    if (all.length === 0) throw new BadInput(`${scale.name} has no shape ${shape ?? ''} of this kind here.`);
    const shapes = all.map(({ number, rootString, run: { touches, shifts, reaches } }) => ({
      shape: number,
      rootString,
      shifts,
      reaches,
      places: touches.map(shown),
    }));
    return { json: { ...head, shapes }, lines: shapes.flatMap((one) => shapeLines(one, instrument)) };
  }
  const run =
    position === undefined || position === 0 ? null : scaleUnderHand(scale.pcs, position, instrument);
  // beside open strings each pitch where it lies lowest on the neck
  const open =
    position === 0
      ? placesOf(scale.pcs, 0, 4, instrument.tuning).filter(
          (place, _, all) => !all.some((other) => other.midi === place.midi && other.fret < place.fret),
        )
      : null;
  const everywhere = () => placesOf(scale.pcs, 0, instrument.frets, instrument.tuning);
  const places = (run?.touches ?? open ?? everywhere()).map(shown);
  return {
    json: { ...head, places, ...(run ? { path: run.touches.map(touchOf) } : {}) },
    lines: stringLines(places, instrument),
  };
}

const touchOf = ({ string, fret, finger }: RunTouch) => ({ string, fret, finger });

type WrittenShape = {
  readonly shape: number;
  readonly rootString: number | null;
  readonly shifts: readonly number[];
  readonly reaches: number;
  readonly places: readonly Shown[];
};

function shapeLines({ shape, rootString, shifts, reaches, places }: WrittenShape, instrument: Instrument) {
  const root = rootString === null ? '' : `, root on string ${rootString}`;
  const reach = reaches === 0 ? '' : `, ${reaches} ${reaches === 1 ? 'reach' : 'reaches'}`;
  const moves = shifts.map((index) => elementAt(places, index).name).join(' and ');
  return [
    `shape ${shape}${root}${reach}${moves ? `, the hand moves at ${moves}` : ''}`,
    ...stringLines(places, instrument),
    '',
  ];
}

/** The highest string first; a finger in brackets where one is known. */
const stringLines = (places: readonly Shown[], { tuning }: Instrument): string[] =>
  tuning.map(
    (_, index) =>
      `string ${index + 1}: ${places
        .filter((place) => place.string === index + 1)
        .map(({ fret, name, finger }) => `${fret} ${name}${finger === undefined ? '' : ` (${finger})`}`)
        .join(', ')}`,
  );

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
