import { readWav, toMono } from '@/core/formats';
import { Transcriber, type Transcription } from '@/core/transcribe';
import { valueOf } from './exit';
import { argumentsOf, numberFrom, onlyFile, printJson, readFile } from './input';

/**
 * `transcribe take.wav`: the notes of a recording; with --frames its pitch track too; with --backing the band
 * is taken out first.
 */
export function transcribeCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    json: { type: 'boolean' },
    frames: { type: 'boolean' },
    tuning: { type: 'string' },
    backing: { type: 'string' },
  });
  const file = onlyFile(positionals, 'the recording');
  const { transcription, track, frameSeconds } = hear(file, values.tuning, values.backing);
  if (transcription.notes.length === 0)
    process.stderr.write(
      `${file}: no notes were heard; the recording ${transcription.playingLevel < -70 ? 'is silent' : 'holds no clear pitch'}.\n`,
    );
  if (values.json)
    printJson(
      values.frames
        ? {
            ...transcription,
            frames: {
              hopSec: frameSeconds,
              midi: [...track].map((midi) => (Number.isNaN(midi) ? null : Math.round(midi * 100) / 100)),
            },
          }
        : transcription,
    );
  else
    for (const note of transcription.notes)
      process.stdout.write(
        `${note.onsetSec.toFixed(3)}  ${note.offsetSec.toFixed(3)}  ${note.midi}${note.cents >= 0 ? '+' : ''}${note.cents}\n`,
      );
}

export function hear(
  file: string,
  tuning?: string,
  backing?: string,
): { transcription: Transcription; track: Float64Array; frameSeconds: number } {
  const audio = valueOf(readWav(readFile(file)));
  const band = backing === undefined ? undefined : valueOf(readWav(readFile(backing)));
  const transcriber = new Transcriber(audio.rate, {
    ...(band ? { backing: { samples: toMono(band), rate: band.rate } } : {}),
    tuning: tuning === undefined || tuning === 'auto' ? 'auto' : numberFrom(tuning, 'tuning', 400, 480),
  });
  transcriber.push(toMono(audio));
  return transcriber.finishWithTrack();
}
