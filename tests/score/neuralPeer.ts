import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { resample } from '@/core/sound';
import type { ReportedNote } from './evaluate';

/** What is used of the neural transcriber and of what it runs on; neither is a dependency, so their types are written here. */
type Tensors = {
  setBackend(name: string): Promise<boolean>;
  ready(): Promise<void>;
  loadGraphModel(handler: { load(): Promise<unknown> }): Promise<unknown>;
};
type Found = { pitchMidi: number; startTimeSeconds: number; durationSeconds: number };
type Transcriber = {
  BasicPitch: new (model: Promise<unknown>) => {
    evaluateModel(
      samples: Float32Array,
      found: (frames: number[][], onsets: number[][]) => void,
      progress: () => void,
    ): Promise<void>;
  };
  outputToNotesPoly(
    frames: number[][],
    onsets: number[][],
    onset: number,
    frame: number,
    least: number,
  ): unknown;
  noteFramesToTime(notes: unknown): Found[];
};
export type SlowPeer = {
  readonly name: string;
  readonly notes: (samples: Float32Array, rate: number) => Promise<ReportedNote[]>;
};

const RATE = 22_050;
const PACKAGE = '@spotify/basic-pitch';

/**
 * The neural general-purpose transcriber of the registry (basic-pitch, Apache-2.0; Bittner et al., ICASSP 2022), with its own thresholds.
 * It brings 300 MB and runs slower than real time, so it is asked only where somebody has put it there:
 * `npm install --no-save @spotify/basic-pitch@1.0.1`.
 */
export async function neuralPeer(): Promise<SlowPeer | null> {
  const require = createRequire(path.resolve('package.json'));
  let folder: string;
  try {
    folder = path.dirname(require.resolve(`${PACKAGE}/package.json`));
  } catch {
    return null;
  }
  const tensors = createRequire(path.join(folder, 'package.json'))('@tensorflow/tfjs') as Tensors;
  const { BasicPitch, outputToNotesPoly, noteFramesToTime } = require(PACKAGE) as Transcriber;
  await tensors.setBackend('cpu');
  await tensors.ready();
  const stored = JSON.parse(readFileSync(path.join(folder, 'model/model.json'), 'utf8')) as {
    weightsManifest: { weights: unknown }[];
  };
  const bytes = readFileSync(path.join(folder, 'model/group1-shard1of1.bin'));
  const weightData = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length);
  const model = tensors.loadGraphModel({
    load: () => Promise.resolve({ ...stored, weightSpecs: stored.weightsManifest[0]!.weights, weightData }),
  });
  return {
    name: 'basic-pitch',
    notes: async (samples, rate) => {
      const [frames, onsets]: [number[][], number[][]] = [[], []];
      await new BasicPitch(model).evaluateModel(
        resample(samples, rate, RATE),
        (f, o) => {
          frames.push(...f);
          onsets.push(...o);
        },
        () => undefined,
      );
      return noteFramesToTime(outputToNotesPoly(frames, onsets, 0.5, 0.3, 5)).map((note) => ({
        onset: note.startTimeSeconds,
        offset: note.startTimeSeconds + note.durationSeconds,
        pitch: note.pitchMidi,
      }));
    },
  };
}
