'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { listDevices, type InputInfo } from '@/audio/input/device';
import type { AudioInput, AudioInputState } from '@/audio/input/audioInput';

const CLOSED: AudioInputState = { phase: 'closed' };

export const useRigState = (rig: AudioInput): AudioInputState =>
  useSyncExternalStore(rig.subscribe, rig.getState, () => CLOSED);

const LOOK_MS = 80;

/** The input's level now, its highest, and how often it clipped since it was last listened to anew. */
export function useLevel(rig: AudioInput): {
  readonly level: number;
  readonly highest: number;
  readonly clipped: number;
} {
  const [shown, setShown] = useState({ level: -120, highest: -120, clipped: 0 });
  useEffect(() => {
    const timer = setInterval(
      () =>
        setShown((before) => {
          const now = {
            level: Math.round(rig.level),
            highest: Math.round(rig.highest),
            clipped: rig.clipped,
          };
          return before.level === now.level &&
            before.highest === now.highest &&
            before.clipped === now.clipped
            ? before
            : now;
        }),
      LOOK_MS,
    );
    return () => clearInterval(timer);
  }, [rig]);
  return shown;
}

/**
 * Inputs and outputs of this computer, looked up anew when something is plugged in or out, and when `state`
 * says that names may be known now.
 */
export function useDevices(phase: string): {
  readonly inputs: readonly InputInfo[];
  readonly outputs: readonly InputInfo[];
} {
  const [devices, setDevices] = useState<{ inputs: readonly InputInfo[]; outputs: readonly InputInfo[] }>({
    inputs: [],
    outputs: [],
  });
  useEffect(() => {
    const look = () =>
      void Promise.all([listDevices('audioinput'), listDevices('audiooutput')])
        .then(([inputs, outputs]) => setDevices({ inputs, outputs }))
        .catch(() => undefined);
    look();
    navigator.mediaDevices?.addEventListener?.('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener?.('devicechange', look);
  }, [phase]);
  return devices;
}
