'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import type { TakeSession } from '@/audio/takeSession';
import type { SessionState } from '@/audio/sessionState';

const IDLE: SessionState = { phase: 'idle' };
const nothing = () => () => undefined;

/** Where a take is on its way; idle where there is none. */
export const useSession = (session: TakeSession | null): SessionState =>
  useSyncExternalStore(session?.subscribe ?? nothing, session?.getState ?? (() => IDLE), () => IDLE);

/** Calls for every frame the browser draws, until told to stop. */
export function everyFrame(work: () => void): () => void {
  let id = requestAnimationFrame(function tick() {
    work();
    id = requestAnimationFrame(tick);
  });
  return () => cancelAnimationFrame(id);
}

/**
 * The beat the take is in, from the audio clock; a change of beat is a change of state, a change of place in
 * it is none.
 */
export function useBeat(session: TakeSession): number {
  const [beat, setBeat] = useState(() => Math.floor(session.position()));
  useEffect(() => everyFrame(() => setBeat(Math.floor(session.position() + 1e-3))), [session]);
  return beat + 1e-3;
}
