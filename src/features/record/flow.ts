import type { SessionState, TakeSession, TakeSettings } from '@/audio/takeSession';
import { beatsPerBar, secondsAt } from '@/core/chart';
import { createStore, present } from '@/core/shared';
import type { FlowState, World } from './flowState';

/**
 * The next take is made ready so long before this one ends: early enough to be there, late enough not to take
 * time from the playing.
 */
const READY_BEFORE_SECONDS = 3;
/** After a take the result stands alone so long before the next count-in begins. */
export const RESULT_ALONE_MS = 700;

/**
 * From a take to its result and on to the next, hands on the guitar: which take runs, which has just ended,
 * and whether the next one comes by
 * itself. The screen only draws it.
 */
export class RecordFlow {
  private readonly store = createStore<FlowState>({
    scene: 'setup',
    session: null,
    finished: null,
    rolling: false,
    trouble: null,
  });
  private ended: TakeSession | null = null;
  private last: TakeSettings | null = null;
  /** The take after the running one, made ready while that plays its last bars. */
  private upcoming: { readonly session: TakeSession; readonly settings: TakeSettings } | null = null;
  private early: ReturnType<typeof setTimeout> | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private turn = 0;

  constructor(private readonly world: World) {}

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): FlowState {
    return this.store.get();
  }
  private become(change: Partial<FlowState>): void {
    this.store.set({ ...this.state, ...change });
  }

  private later(ms: number, work: () => void): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(work, ms);
  }
  private stopTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }

  /** Another band for every take. */
  nextSeed(): number {
    return ++this.seed;
  }
  private seed = 0;

  say(trouble: string | null): void {
    this.become({ trouble });
  }

  /** Opens the input where it is not open, and counts in. */
  async start(settings: TakeSettings): Promise<void> {
    this.stopTimer();
    // a result stays on the screen until the next take has something to show
    this.become({ rolling: false, trouble: null });
    await this.begin(settings);
  }

  private async begin(settings: TakeSettings): Promise<void> {
    this.last = settings;
    const turn = ++this.turn;
    const opened = await this.world.openInput();
    // the player may have thought better of it meanwhile
    if (turn !== this.turn || this.closed) return;
    if (!opened) return this.become({ scene: 'no-input', rolling: false, finished: null });
    const session =
      this.upcoming?.settings === settings ? this.upcoming.session : this.world.makeSession(settings);
    if (this.upcoming?.settings !== settings) this.dropUpcoming();
    this.upcoming = null;
    this.become(this.state.rolling ? { session } : { session, scene: 'live', finished: null });
    session.subscribe(() => this.follow(session, session.getState()));
    await session.start();
  }

  private follow(session: TakeSession, state: SessionState): void {
    if (session === this.ended) return this.followEnd(state);
    if (session !== this.state.session) return;
    switch (state.phase) {
      case 'waiting':
        return this.become({ scene: 'waiting', rolling: false, finished: null });
      case 'running':
        this.readyEarly(session);
        if (this.state.rolling)
          return this.later(Math.max(0, -1000 * secondsAt(session.route.pace, session.position())), () =>
            this.become({ scene: 'live', rolling: false }),
          );
        return this.become({ scene: 'live' });
      case 'finishing':
        return this.end(session);
      case 'failed':
        return this.become({ ...this.withoutTake(), trouble: state.message });
      case 'idle':
        return this.become(this.withoutTake());
      case 'done':
      case 'silent':
      case 'opening':
        return;
    }
  }

  /**
   * The running take is gone: back to the result it was counted in behind, else to the setup. A result that
   * has been left is not gone back to.
   */
  private withoutTake(): Partial<FlowState> {
    return {
      session: null,
      rolling: false,
      ...(this.state.scene === 'finished' ? {} : { scene: 'setup', finished: null }),
    };
  }

  /**
   * The take is over: its result is shown while it is being judged, and where the player rolls on the next one
   * is made ready meanwhile.
   */
  private end(session: TakeSession): void {
    this.ended = session;
    const settings = present(this.last);
    const rolls = this.world.afterTake() === 'roll';
    if (this.early) clearTimeout(this.early);
    this.become({
      scene: 'finished',
      session: null,
      rolling: rolls,
      finished: {
        id: session.id,
        title: settings.title,
        passes: settings.route.passes,
        tempo: settings.route.tempo,
        kept: false,
        cut: false,
        judging: true,
      },
    });
    if (!rolls) return;
    const next = this.makeUpcoming();
    this.later(RESULT_ALONE_MS, () => void this.begin(next));
  }

  private readyEarly(session: TakeSession): void {
    if (this.early) clearTimeout(this.early);
    if (this.world.afterTake() !== 'roll' || !Number.isFinite(session.left)) return;
    this.early = setTimeout(
      () => {
        if (this.state.session === session && this.world.afterTake() === 'roll') this.makeUpcoming();
      },
      1000 * Math.max(0, session.left - READY_BEFORE_SECONDS),
    );
  }

  /** The same again with another band, made ready. */
  private makeUpcoming(): TakeSettings {
    if (this.upcoming) return this.upcoming.settings;
    const settings = { ...present(this.last), seed: this.nextSeed() };
    const session = this.world.makeSession(settings);
    this.upcoming = { session, settings };
    session.prepare().catch(() => undefined); // what is wrong is said when it is started
    return settings;
  }

  private dropUpcoming(): void {
    if (this.early) clearTimeout(this.early);
    void this.upcoming?.session.discard();
    this.upcoming = null;
  }

  private followEnd(state: SessionState): void {
    const { finished } = this.state;
    switch (state.phase) {
      case 'done':
        if (finished?.id === state.takeId)
          this.become({ finished: { ...finished, kept: state.kept, cut: state.cut, judging: false } });
        if (state.cut) this.stay();
        if (this.world.afterTake() === 'review' && state.kept) this.world.review(state.takeId, state.cut);
        return;
      case 'silent':
        this.stay();
        return this.become({ scene: 'silent' });
      case 'failed':
        this.stay();
        return this.become({ scene: 'setup', finished: null, trouble: state.message });
      default:
        return;
    }
  }

  /** Seconds until bar 1 of the take that comes, and how many there were in all. */
  countdown(): { readonly left: number; readonly of: number } {
    const { session } = this.state;
    const { countInBars, route } = present(this.last);
    const countIn = session
      ? -secondsAt(session.route.pace, -countInBars * beatsPerBar(session.route.chart.meter))
      : (countInBars * 4 * 60) / route.tempo;
    const of = RESULT_ALONE_MS / 1000 + countIn;
    return { left: session ? Math.max(0, -secondsAt(session.route.pace, session.position())) : of, of };
  }

  /** Is the next take's count-in sounding already? */
  isCounting(): boolean {
    return this.state.session?.getState().phase === 'running';
  }

  /** Nothing comes by itself any more: the result stays. */
  stay(): void {
    this.turn++;
    this.stopTimer();
    this.dropUpcoming();
    const { session } = this.state;
    this.become({ rolling: false, session: null, scene: this.state.finished ? 'finished' : 'setup' });
    if (session && session !== this.ended) void session.discard();
  }

  /** Puts the take that has just ended in the trash. */
  throwAway(): void {
    this.stay();
    const { ended } = this;
    if (ended) this.trash(ended, () => ended.throwAway());
    this.ended = null;
    this.become({ finished: null, scene: 'setup' });
  }

  /** Stops the running take and puts it in the trash. */
  discardRunning(): void {
    const { session } = this.state;
    if (session) this.trash(session, () => session.discard());
  }

  private trash({ id }: TakeSession, work: () => Promise<boolean>): void {
    void work().then((recoverable) => {
      if (recoverable) this.world.trashed(id);
    });
  }

  /** Leaves the result, or the input that could not be opened, for the setup. */
  back(): void {
    this.stay();
    this.become({ finished: null, scene: 'setup' });
  }

  /** The screen is shown: also again, where development draws it twice. */
  enter(): void {
    this.closed = false;
  }

  /** The screen goes away. */
  leave(): void {
    this.closed = true;
    this.stopTimer();
    this.dropUpcoming();
    this.state.session?.leave();
  }
}
