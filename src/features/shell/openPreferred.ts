import type { RecordingResources } from '@/audio/recordingResources';
import { preferences } from './preferences';

/** Opens the input the player has chosen, and lets the band speak through the chosen output. */
export async function openPreferred({ input }: RecordingResources): Promise<boolean> {
  const { device, outputId } = preferences();
  const opened = await input.open(device);
  if (opened && outputId !== null) await input.speakThrough(outputId).catch(() => false);
  return opened;
}
