import type { CaptureBlock } from './captureMessage';

/** Why an input could not be opened, as something a player can act on. */
export type InputTrouble = 'refused' | 'none' | 'busy' | 'unsupported';

export class InputError extends Error {
  constructor(readonly trouble: InputTrouble) {
    super(trouble);
  }
}

/** An open input: blocks of raw samples in the clock of its context. */
export type Input = {
  readonly context: AudioContext;
  readonly label: string;
  onBlock: (block: CaptureBlock) => void;
  onEnded: () => void;
  close(): void;
};

/** Raw sound: what a phone call would do to a voice would ruin a guitar. */
const RAW: MediaTrackConstraints = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

/**
 * Opens the microphone or interface on a context. The worklet is loaded before the stream is asked for, so that source and worklet are
 * joined at once: joined late, the first samples are stale.
 */
export async function openInput(context: AudioContext, deviceId?: string): Promise<Input> {
  if (!navigator.mediaDevices?.getUserMedia) throw new InputError('unsupported');
  await context.audioWorklet.addModule('/worklets/capture.js');
  const stream = await askFor(deviceId);
  const source = context.createMediaStreamSource(stream);
  const capture = new AudioWorkletNode(context, 'capture', { numberOfInputs: 1, numberOfOutputs: 0 });
  source.connect(capture);
  const [track] = stream.getAudioTracks();
  const input: Input = {
    context, label: track?.label ?? '', onBlock: () => undefined, onEnded: () => undefined,
    close: () => {
      capture.port.onmessage = null;
      source.disconnect();
      for (const one of stream.getTracks()) one.stop();
    },
  };
  capture.port.onmessage = ({ data }: MessageEvent<CaptureBlock>) => input.onBlock(data);
  track?.addEventListener('ended', () => input.onEnded());
  return input;
}

async function askFor(deviceId?: string): Promise<MediaStream> {
  try {
    return await navigator.mediaDevices.getUserMedia({ audio: deviceId ? { ...RAW, deviceId: { exact: deviceId } } : RAW });
  } catch (error) {
    const name = error instanceof DOMException ? error.name : '';
    throw new InputError(name === 'NotAllowedError' || name === 'SecurityError' ? 'refused' : name === 'NotFoundError' || name === 'OverconstrainedError' ? 'none' : 'busy');
  }
}
