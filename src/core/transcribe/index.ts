export { Transcriber, transcribe, type Transcription, type TranscribeOptions } from './transcriber';
export type { HeardNote } from './notes';
export { FRAME_SECONDS } from './frames';
