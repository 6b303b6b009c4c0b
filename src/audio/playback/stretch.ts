type StretchNode = AudioNode & {
  addBuffers(buffers: readonly Float32Array[]): Promise<number>;
  schedule(change: {
    output?: number;
    active?: boolean;
    input?: number;
    rate?: number;
    semitones?: number;
  }): Promise<unknown>;
};
type Stretcher = (
  context: BaseAudioContext,
  options: { numberOfInputs: number; numberOfOutputs: number; outputChannelCount: number[] },
) => Promise<StretchNode>;

/** Where the build puts it: it loads its own worklet, so no bundler may touch it. */
const ADDRESS = '/stretch/SignalsmithStretch.mjs';
let loading: Promise<Stretcher> | null = null;
const stretcher = (): Promise<Stretcher> =>
  (loading ??= (
    import(/* webpackIgnore: true */ /* turbopackIgnore: true */ ADDRESS) as Promise<{ default: Stretcher }>
  ).then((made) => made.default));

/** The first moments of an offline rendering are the stretcher finding its feet. */
const RUN_UP_SECONDS = 0.12;

/**
 * Sound at another speed at its own pitch, or at another pitch at its own speed (signalsmith-stretch).
 * @param speed 0.5 is half as fast
 * @param semitones up, or down where negative
 * @returns as long as `samples` at that speed
 */
export async function stretched(
  samples: Float32Array,
  rate: number,
  { speed = 1, semitones = 0 }: { speed?: number; semitones?: number },
): Promise<Float32Array> {
  const length = Math.max(1, Math.round(samples.length / speed));
  const runUp = Math.round(RUN_UP_SECONDS * rate);
  const context = new OfflineAudioContext(1, length + runUp, rate);
  const node = await (
    await stretcher()
  )(context, { numberOfInputs: 0, numberOfOutputs: 1, outputChannelCount: [1] });
  node.connect(context.destination);
  await node.addBuffers([samples]);
  await node.schedule({ output: 0, active: true, input: -RUN_UP_SECONDS * speed, rate: speed, semitones });
  const made = await context.startRendering();
  return made.getChannelData(0).slice(runUp);
}
