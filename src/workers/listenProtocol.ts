import type { Problem } from '@/core/shared';
import type { BackingStream, ProvisionalNote, Transcription } from '@/core/transcribe';

/** What is asked of the listening worker. A take comes in blocks while it is recorded; a file comes whole. */
export type ListenRequest =
  /** `backing`: the band is told as it is played, and its leak taken out. */
  | { readonly type: 'begin'; readonly rate: number; readonly backing?: BackingStream }
  | { readonly type: 'backing'; readonly samples: Float32Array }
  | { readonly type: 'block'; readonly samples: Float32Array }
  | { readonly type: 'finish' }
  | { readonly type: 'file'; readonly bytes: ArrayBuffer };

export type ListenReply =
  | { readonly type: 'live'; readonly notes: readonly ProvisionalNote[] }
  | { readonly type: 'progress'; readonly share: number }
  | { readonly type: 'notes'; readonly transcription: Transcription }
  | {
      readonly type: 'file-notes';
      readonly transcription: Transcription;
      readonly rate: number;
      readonly samples: Float32Array;
    }
  | { readonly type: 'refused'; readonly problem: Problem };
