import { CHARACTERS, type StandInCharacter } from '@/core/band';
import type { CaptureBlock } from './captureMessage';
import type { Device } from './device';

const LONGEST_DELAY = 1;
/** An interface is never wholly silent: hiss near −72 dBFS. */
const HISS = 0.00025;

/**
 * The stand-in player as a device: what its hands play, and what is sent through its cable, is heard after its
 * delay.
 */
export async function openStandIn(
  context: AudioContext,
  character: StandInCharacter,
  delayMs: number,
): Promise<Device> {
  await context.audioWorklet.addModule('/worklets/capture.js');
  const hands = new GainNode(context);
  const cable = new GainNode(context);
  const delay = new DelayNode(context, { maxDelayTime: LONGEST_DELAY, delayTime: delayMs / 1000 });
  const worklet = new AudioWorkletNode(context, 'capture', {
    numberOfInputs: 1,
    numberOfOutputs: 0,
    channelCount: 1,
    channelCountMode: 'explicit',
  });
  const hiss = hissOf(context);
  hands.connect(delay);
  cable.connect(delay);
  delay.connect(worklet);
  hiss.connect(worklet);
  const device: Device = {
    key: `stand-in ${delayMs} ${context.sampleRate}`,
    label: `Stand-in player, ${CHARACTERS[character].name}`,
    channels: 1,
    refusals: [],
    hands,
    cable,
    onBlock: () => undefined,
    onEnded: () => undefined,
    choose: () => undefined,
    close: () => {
      worklet.port.onmessage = null;
      hiss.stop();
      for (const node of [hands, cable, delay, hiss]) node.disconnect();
    },
  };
  worklet.port.onmessage = ({ data }: MessageEvent<CaptureBlock>) => device.onBlock(data);
  return device;
}

function hissOf(context: AudioContext): AudioBufferSourceNode {
  const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let n = 0; n < samples.length; n++) samples[n] = (Math.random() * 2 - 1) * HISS;
  const source = new AudioBufferSourceNode(context, { buffer, loop: true });
  source.start();
  return source;
}
