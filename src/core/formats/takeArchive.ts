import { LIMITS } from '../contracts';
import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import Joi from 'joi';
import type { Edit, SecondsNote, TakeWords } from '../correct';
import type { Pace } from '../chart';
import { accepted, refused, type Outcome, type Seconds, elementAt } from '../shared';
import { editsSchema, wordsSchema } from './edits';
import { notesSchema } from './notes';
import { dropOutSchema, paceSchema, planSchema } from './plan';
import type { PlanWords } from '../plan';

export const TAKE_SCHEMA = 'idle-wander/take@1';

/** A take as a document: everything but its sound. */
export type TakeDocument = {
  readonly schema: typeof TAKE_SCHEMA;
  readonly title: string;
  readonly chartText: string;
  readonly tempo: number;
  readonly choruses: number;
  readonly plan: PlanWords;
  readonly pace: Pace | null;
  readonly offsetSec: Seconds;
  readonly source: 'microphone' | 'file' | 'stand-in';
  readonly device: string | null;
  readonly latencySec: Seconds | null;
  readonly createdAt: number;
  readonly dropOut?: { readonly choruses?: readonly number[]; readonly bars?: readonly number[] };
  readonly heard: { readonly schema?: string; readonly notes: readonly SecondsNote[] } & Record<
    string,
    unknown
  >;
  readonly edits: readonly Edit[];
  readonly words: TakeWords;
};

const schema = Joi.object<TakeDocument>({
  schema: Joi.string().valid(TAKE_SCHEMA).required(),
  title: Joi.string().min(1).max(120).required(),
  chartText: Joi.string().max(65_536).required(),
  tempo: Joi.number().min(20).max(400).required(),
  choruses: Joi.number().integer().min(1).max(100).required(),
  plan: planSchema.required(),
  pace: paceSchema.allow(null).required(),
  offsetSec: Joi.number().min(-600).max(600).required(),
  source: Joi.string().valid('microphone', 'file', 'stand-in').required(),
  device: Joi.string().allow('', null).max(200).required(),
  latencySec: Joi.number().min(-0.2).max(1).allow(null).required(),
  createdAt: Joi.number().integer().min(0).required(),
  dropOut: dropOutSchema,
  heard: notesSchema.required(),
  edits: editsSchema.required(),
  words: wordsSchema.required(),
});

/**
 * A ZIP counts years from 1980 to 2099; a clock may have said otherwise. A day from either end is inside in
 * every time zone.
 */
const [ZIP_FIRST, ZIP_LAST] = [Date.UTC(1980, 0, 2), Date.UTC(2099, 11, 30)];

/**
 * A take in one file: a ZIP of `take.json` and, where there is one, `sound.wav`, as it is. It is written piece by
 * piece: a take is never held whole.
 * @param onPiece told each piece of the file in order
 * @returns takes the sound, in order, and the end of it
 */
export function takeArchive(
  take: TakeDocument,
  onPiece: (piece: Uint8Array) => void,
): { readonly sound: (piece: Uint8Array) => void; readonly end: () => void } {
  const mtime = new Date(Math.min(ZIP_LAST, Math.max(ZIP_FIRST, take.createdAt)));
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    onPiece(piece);
  });
  const document = Object.assign(new ZipDeflate('take.json', { level: 6 }), { mtime });
  zip.add(document);
  document.push(strToU8(JSON.stringify(take, null, 1)), true);
  let wav: ZipPassThrough | null = null;
  return {
    sound: (piece) => {
      if (!wav) {
        wav = Object.assign(new ZipPassThrough('sound.wav'), { mtime });
        zip.add(wav);
      }
      wav.push(piece);
    },
    end: () => {
      wav?.push(new Uint8Array(0), true);
      zip.end();
    },
  };
}

/** The same at once, of sound that is there. */
export function packTake(take: TakeDocument, sound: Uint8Array | null): Uint8Array {
  const pieces: Uint8Array[] = [];
  const archive = takeArchive(take, (piece) => pieces.push(piece));
  if (sound) archive.sound(sound);
  archive.end();
  const whole = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/**
 * Opens such a file. Names inside are looked up, never followed as paths; what would unpack to more than the
 * limits is not unpacked.
 */
export function unpackTake(bytes: Uint8Array): Outcome<{ take: TakeDocument; sound: Uint8Array | null }> {
  let files: Record<string, Uint8Array>;
  let tooLarge = false;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        let most: number;
        if (name === 'take.json') most = LIMITS.archive.documentBytes;
        else if (name === 'sound.wav') most = LIMITS.archive.bytes;
        else most = -1;
        if (most >= 0 && originalSize > most) tooLarge = true;
        return originalSize <= most;
      },
    });
  } catch {
    return refused({
      code: 'archive.unreadable',
      message: 'This is not an archive of a take.',
      suggestion: 'Choose a .zip that a take was saved to.',
    });
  }
  if (tooLarge)
    return refused({ code: 'archive.too-large', message: 'This archive holds more than a take can.' });
  const document = files['take.json'];
  if (!document)
    return refused({
      code: 'archive.empty',
      message: 'There is no take in this archive.',
      suggestion: 'Choose a .zip that a take was saved to.',
    });
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(document));
  } catch (error) {
    return refused({
      code: 'archive.json',
      path: 'take.json',
      message: `The take in this archive cannot be read: ${(error as Error).message}.`,
    });
  }
  const { error, value } = schema.validate(json, { convert: false });
  if (error)
    return refused({
      code: 'archive.shape',
      path: `take.json: ${elementAt(error.details, 0).path.join('.')}`,
      message: `The take in this archive is not as it should be: ${elementAt(error.details, 0).message}.`,
    });
  return accepted({ take: value, sound: files['sound.wav'] ?? null });
}
