import type { CaptureBlock, Channel } from './captureMessage';
import { InputError, type Device } from './device';

/** Raw sound: what a phone call would do to a voice would ruin a guitar. */
const RAW = { echoCancellation: false, noiseSuppression: false, autoGainControl: false } as const;
const NAMES: Record<keyof typeof RAW, string> = {
  echoCancellation: 'echo cancelling',
  noiseSuppression: 'noise suppression',
  autoGainControl: 'gain control',
};

/**
 * Opens an input of this computer on a context. The worklet is loaded before the stream is asked for, so
 * that source and worklet are
 * joined at once: joined late, the first samples are stale.
 */
export async function openMicrophone(
  context: AudioContext,
  deviceId: string | null,
  channel: Channel,
): Promise<Device> {
  if (!navigator.mediaDevices?.getUserMedia) throw new InputError('unsupported');
  await context.audioWorklet.addModule('/worklets/capture.js');
  const stream = await askFor(deviceId);
  const source = context.createMediaStreamSource(stream);
  const [track] = stream.getAudioTracks();
  const settings = track?.getSettings() ?? {};
  const worklet = new AudioWorkletNode(context, 'capture', { numberOfInputs: 1, numberOfOutputs: 0 });
  worklet.port.postMessage({ channel });
  source.connect(worklet);
  const label = track?.label ?? '';
  const device: Device = {
    key: `${label || 'default'} ${context.sampleRate}`,
    label,
    channels: settings.channelCount ?? 1,
    refusals: (Object.keys(RAW) as (keyof typeof RAW)[])
      .filter((name) => settings[name] === true)
      .map((name) => NAMES[name]),
    onBlock: () => undefined,
    onEnded: () => undefined,
    choose: (chosen) => worklet.port.postMessage({ channel: chosen }),
    close: () => {
      worklet.port.onmessage = null;
      source.disconnect();
      for (const one of stream.getTracks()) one.stop();
    },
  };
  worklet.port.onmessage = ({ data }: MessageEvent<CaptureBlock>) => device.onBlock(data);
  track?.addEventListener('ended', () => device.onEnded());
  return device;
}

async function askFor(deviceId: string | null): Promise<MediaStream> {
  // all the channels there are: which one the guitar is on is chosen here
  const wanted: MediaTrackConstraints = { ...RAW, channelCount: { ideal: 8 } };
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: deviceId ? { ...wanted, deviceId: { exact: deviceId } } : wanted,
    });
  } catch (error) {
    const name = error instanceof DOMException ? error.name : '';
    throw new InputError(troubleNamed(name));
  }
}

function troubleNamed(name: string) {
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return 'none';
  return 'busy';
}
