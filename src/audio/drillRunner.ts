import { createStore } from '@/core/shared';
import type { SessionState, TakeSession, TakeSettings } from './takeSession';

export type DrillRunnerScene = 'ready' | 'no-input' | 'waiting' | 'live' | 'counting' | 'done';

/** An attempt as it was counted: `said` is shown while the next one is counted in. */
export type CountedAttempt<T> = { readonly takeId: string; readonly outcome: T };

export type RunnerState<T> = {
  readonly scene: DrillRunnerScene;
  readonly session: TakeSession | null;
  /** Attempts counted in this sitting. */
  readonly counted: readonly CountedAttempt<T>[];
  /** And in the sittings before it, since the screen was opened. */
  readonly before: readonly CountedAttempt<T>[];
  readonly trouble: string | null;
};

/** What the runner needs of the world around it; tests have their own. */
export type DrillWorld<T> = {
  readonly openInput: () => Promise<boolean>;
  /** The next attempt: at the ladder's tempo as it stands now. */
  readonly settings: (attempt: number) => TakeSettings;
  readonly makeSession: (settings: TakeSettings) => TakeSession;
  /** Counts a kept take as an attempt. */
  readonly count: (takeId: string) => Promise<T>;
  /** Is there another attempt after this one? */
  readonly goesOn: (counted: readonly CountedAttempt<T>[]) => boolean;
};

/** A result stands so long before the next count-in begins. */
export const RESULT_MS = 1_200;

/**
 * A sitting at a drill, hands free: an attempt, its count, and the next one after a bar, until it is
 * learnt, the minutes are over, or the
 * player stops. Attempts are takes like any other: nothing that was played is lost.
 */
export class DrillRunner<T> {
  private readonly store = createStore<RunnerState<T>>({
    scene: 'ready',
    session: null,
    counted: [],
    before: [],
    trouble: null,
  });
  private timer: ReturnType<typeof setTimeout> | null = null;
  private turn = 0;
  private attempts = 0;
  private stopping = false;

  constructor(private readonly world: DrillWorld<T>) {}

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): RunnerState<T> {
    return this.store.get();
  }
  private become(change: Partial<RunnerState<T>>): void {
    this.store.set({ ...this.state, ...change });
  }

  /** Begins a sitting, or goes on with the next attempt. */
  async start(): Promise<void> {
    this.stopTimer();
    this.stopping = false;
    if (this.state.scene === 'done')
      this.become({ counted: [], before: [...this.state.before, ...this.state.counted] });
    const turn = ++this.turn;
    this.become({ trouble: null });
    const opened = await this.world.openInput();
    if (turn !== this.turn) return;
    if (!opened) return this.become({ scene: 'no-input', session: null });
    const session = this.world.makeSession(this.world.settings(this.attempts++));
    this.become({ session, scene: 'live' });
    session.subscribe(() => this.follow(session, session.getState()));
    await session.start();
  }

  private follow(session: TakeSession, state: SessionState): void {
    if (session !== this.state.session) return;
    switch (state.phase) {
      case 'waiting':
        return this.become({ scene: 'waiting' });
      case 'running':
        return this.become({ scene: 'live' });
      case 'finishing':
        return this.become({ scene: 'counting' });
      case 'silent':
        return this.become({
          scene: 'done',
          session: null,
          trouble: 'Nothing was heard. Look at the input and its level.',
        });
      case 'failed':
        return this.become({
          scene: this.state.counted.length > 0 ? 'done' : 'ready',
          session: null,
          trouble: state.message,
        });
      case 'idle':
        return this.become({ scene: this.state.counted.length > 0 ? 'done' : 'ready', session: null });
      case 'done':
        return void this.count(state.takeId, state.kept, state.cut);
      case 'opening':
        return;
    }
  }

  private async count(takeId: string, kept: boolean, cut: boolean): Promise<void> {
    const turn = this.turn;
    if (!kept)
      return this.become({
        scene: 'done',
        session: null,
        trouble: 'The server is away: this attempt is safe on this computer, but it is not counted.',
      });
    try {
      const outcome = await this.world.count(takeId);
      if (turn !== this.turn) return;
      const counted = [...this.state.counted, { takeId, outcome }];
      const over = cut || this.stopping || !this.world.goesOn(counted);
      this.become({ counted, session: null, scene: over ? 'done' : 'counting' });
      if (!over) this.timer = setTimeout(() => void this.start(), RESULT_MS);
    } catch (error) {
      if (turn === this.turn)
        this.become({
          scene: 'done',
          session: null,
          trouble: error instanceof Error ? error.message : 'This attempt could not be counted.',
        });
    }
  }

  /**
   * Ends the sitting. What of the running attempt has been played is thrown away: half of it would count as
   * half missed.
   */
  stop(): void {
    this.stopTimer();
    this.turn++;
    this.stopping = true;
    const { session } = this.state;
    this.become({ scene: this.state.counted.length > 0 ? 'done' : 'ready', session: null });
    if (session) void session.discard();
  }

  /** Another tempo: the running attempt begins anew with it. */
  again(): void {
    const { session, scene } = this.state;
    if (scene !== 'live' && scene !== 'counting') return;
    this.stopTimer();
    this.turn++;
    this.become({ session: null });
    if (session) void session.discard();
    void this.start();
  }

  private stopTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  /** The screen goes away: a running attempt is let go. */
  leave(): void {
    this.stopTimer();
    this.turn++;
    this.state.session?.leave();
  }
}
