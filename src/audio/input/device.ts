import type { StandInCharacter } from '@/core/band';
import type { CaptureBlock, Channel } from './captureMessage';

/**
 * What the player comes in through: an input of this computer, or the stand-in player, who sits in the list
 * like one.
 */
export type DeviceChoice =
  | {
      readonly kind: 'input';
      /** Null for the browser's default. */ readonly deviceId: string | null;
      readonly channel: Channel;
    }
  /** `delayMs` is the round trip of its imagined interface: what a calibration should find. */
  | { readonly kind: 'stand-in'; readonly character: StandInCharacter; readonly delayMs: number };

/** Why an input could not be opened, as something a player can act on. */
export type InputTrouble = 'refused' | 'none' | 'busy' | 'unsupported';
export class InputError extends Error {
  constructor(readonly trouble: InputTrouble) {
    super(trouble);
  }
}

/** An open device: blocks of raw samples in the clock of its context. */
export type Device = {
  /** Names the device for its latency: stable between visits. */
  readonly key: string;
  readonly label: string;
  readonly channels: number;
  /** Treatments the browser would not leave off: they ruin a guitar. */
  readonly refusals: readonly string[];
  onBlock: (block: CaptureBlock) => void;
  onEnded: () => void;
  choose(channel: Channel): void;
  /** Where the stand-in's solo goes in; a real input has none. */
  readonly hands?: AudioNode;
  /**
   * What is played here comes back after the device's delay, as through a cable; only a simulated device has
   * it.
   */
  readonly cable?: AudioNode;
  close(): void;
};

export type InputInfo = { readonly deviceId: string; readonly label: string };

/** Inputs or outputs the browser tells of; without leave to listen their names are empty. */
export async function listDevices(kind: 'audioinput' | 'audiooutput'): Promise<InputInfo[]> {
  const all = (await navigator.mediaDevices?.enumerateDevices?.()) ?? [];
  return all
    .filter((one) => one.kind === kind && one.deviceId !== '')
    .map(({ deviceId, label }) => ({
      deviceId,
      label: label || (kind === 'audioinput' ? 'Unnamed input' : 'Unnamed output'),
    }));
}
