/**
 * One block from the capture worklet: the chosen channel, the context frame its first sample was heard at, and
 * the peak of every channel.
 */
export type CaptureBlock = {
  readonly frame: number;
  readonly samples: Float32Array;
  readonly peaks: readonly number[];
};

/** Which channel of an input is listened to, from 0; or all of them together. */
export type Channel = number | 'mix';
export type CaptureOrder = { readonly channel: Channel };

/** Samples a block: about 46 ms at 44.1 kHz. A multiple of the 128 an audio context works in. */
export const BLOCK_FRAMES = 2048;
