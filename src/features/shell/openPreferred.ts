import type { RecordingResources } from '@/audio/recordingResources';
import type { AudioInput } from '@/audio/input/audioInput';
import type { Channel } from '@/audio/input/captureMessage';
import { prefer, preferences } from './preferences';

/** Opens the input the player has chosen, and lets the band speak through the chosen output. */
export async function openPreferred({ input }: RecordingResources): Promise<boolean> {
  const { device, outputId } = preferences();
  const opened = await input.open(device);
  if (opened && outputId !== null) await input.speakThrough(outputId).catch(() => false);
  return opened;
}

/** Listens to another channel of the input that is chosen, from now on. */
export function changeChannel(input: AudioInput, channel: Channel): void {
  const { device } = preferences();
  if (device.kind !== 'input') return;
  prefer({ device: { ...device, channel } });
  void input.open({ ...device, channel });
}
