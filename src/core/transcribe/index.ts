export { ALIGNED_UNIT, ALIGNED_VALUES } from './alignedSpectra';
export { Transcriber, transcribe, type Transcription, type TranscribeOptions } from './transcriber';
export type { HeardNote } from './notes';
export type { Backing, BackingStream } from './bandRemoval';
export type { ProvisionalNote } from './live';
export { FRAME_SECONDS } from './frames';
