/** One block from the capture worklet: mono samples and the context frame its first sample was heard at. */
export type CaptureBlock = { readonly frame: number; readonly samples: Float32Array };

/** Samples a block: about 46 ms at 44.1 kHz. A multiple of the 128 an audio context works in. */
export const BLOCK_FRAMES = 2048;
