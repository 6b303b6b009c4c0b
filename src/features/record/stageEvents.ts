import type { SharedStage, StageEvent } from '@/server/stageHub';

/** A stage with the moment of its beat 0 by this device's own clock, in ms. */
export type HeardStage = { readonly stage: SharedStage; readonly zeroAt: number };

/** How far this device's clock is ahead of the server's: the news that travelled fastest tells it best. */
export class ServerClock {
  private ahead = Infinity;

  /** @returns the server's time in this device's clock */
  heard(serverNow: number, now: number): (serverTime: number) => number {
    this.ahead = Math.min(this.ahead, now - serverNow);
    const { ahead } = this;
    return (serverTime) => serverTime + ahead;
  }
}

type Listeners = {
  readonly onStage?: (heard: HeardStage) => void;
  readonly onPress?: () => void;
  readonly onAway?: (isAway: boolean) => void;
};

/** Listens to the running stage. @returns how to stop */
export function listenToStage({ onStage, onPress, onAway }: Listeners): () => void {
  const source = new EventSource('/api/stage');
  const clock = new ServerClock();
  let known: { readonly stage: SharedStage; readonly zeroAt: number } | null = null;
  let told = NaN;
  source.onmessage = ({ data }: MessageEvent<string>) => {
    const event = JSON.parse(data) as StageEvent;
    const here = clock.heard(event.now, Date.now());
    onAway?.(false);
    if (event.kind === 'press') return onPress?.();
    const isNew = event.kind === 'stage';
    if (isNew) known = event;
    if (!known) return;
    const zeroAt = here(known.zeroAt);
    // the clocks are compared each second; what that does not change is not said again
    if (!isNew && zeroAt === told) return;
    told = zeroAt;
    onStage?.({ stage: known.stage, zeroAt });
  };
  source.onerror = () => onAway?.(true);
  return () => source.close();
}

const send = (method: 'PUT' | 'POST', body: object): void =>
  void fetch('/api/stage', {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => undefined);

export const showStage = (stage: SharedStage): void => send('PUT', stage);
export const pressFromHere = (): void => send('POST', { press: true });
