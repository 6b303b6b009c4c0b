import { beatsPerBar, secondsAt } from '@/core/chart';
import { createStore, present } from '@/core/shared';
import type { TakeSession } from '../takeSession';
import type { TakeSettings } from '../takeSettings';
import { sittingStep } from './reducer';
import {
  beginning,
  runningIn,
  type CountedTake,
  type SittingEffect,
  type SittingEvent,
  type SittingPolicy,
  type SittingState,
} from './state';

/**
 * The next take is made ready so long before this one ends: early enough to be there, late enough not to take
 * time from the playing.
 */
const READY_BEFORE_SECONDS = 3;

/** What a sitting needs of the world: tests have their own. */
export type SittingWorld<T = never> = {
  readonly openInput: () => Promise<boolean>;
  readonly makeSession: (settings: TakeSettings) => TakeSession;
  /** The take that comes by itself, or begins a sitting at a drill. */
  readonly nextSettings: (last: TakeSettings | null) => TakeSettings;
  /** Does the player want the next take to come by itself? */
  readonly rolls: () => boolean;
  /** Counts a kept take as an attempt. */
  readonly count?: (takeId: string) => Promise<T>;
  /** Is there another attempt after those that were counted? */
  readonly goesOn?: (counted: readonly CountedTake<T>[]) => boolean;
  readonly over?: (takeId: string, kept: boolean, cut: boolean) => void;
  /** A take lies in the trash and can be brought back. */
  readonly trashed?: (takeId: string) => void;
};

type NextEffect = Extract<
  SittingEffect,
  {
    type: 'ready-early' | 'make-next' | 'drop-next' | 'begin-next-in' | 'await-bar-one' | 'stop-waiting';
  }
>;

/** Carries out what the reducer asks for: input, takes, timers and server. The screens draw its state. */
export class Sitting<T = never> {
  private readonly store = createStore<SittingState<T>>(beginning<T>());
  private last: TakeSettings | null = null;
  /** The take after the running one, made ready while that plays its last bars. */
  private upcoming: { readonly session: TakeSession; readonly settings: TakeSettings } | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private early: ReturnType<typeof setTimeout> | null = null;
  private isLeft = false;

  constructor(
    private readonly policy: SittingPolicy,
    private readonly world: SittingWorld<T>,
  ) {}

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): SittingState<T> {
    return this.store.get();
  }

  /** Opens the input where it is not open, and counts in. */
  start(settings: TakeSettings = this.world.nextSettings(null)): Promise<void> {
    return this.send({ type: 'start', settings });
  }
  /** Nothing comes by itself any more: what runs is thrown away, the result stays. */
  stay(): void {
    void this.send({ type: 'stay' });
  }
  /** The running take begins anew, with the settings as they are now. */
  again(): void {
    void this.send({ type: 'again', settings: this.world.nextSettings(this.last) });
  }
  /** Puts the take that has just ended in the trash. */
  throwAway(): void {
    void this.send({ type: 'throw-away' });
  }
  /** Stops the running take and puts it in the trash. */
  discardRunning(): void {
    void this.send({ type: 'discard-running' });
  }
  /** Leaves the result, or the input that could not be opened. */
  back(): void {
    void this.send({ type: 'back' });
  }
  say(trouble: string | null): void {
    void this.send({ type: 'say', trouble });
  }
  /** The screen is shown: also again, where development draws it twice. */
  enter(): void {
    this.isLeft = false;
  }
  /** The screen goes away: a running take is let go. */
  leave(): void {
    this.isLeft = true;
    void this.send({ type: 'leave' });
  }

  /** Seconds until bar 1 of the take that comes, and how many there were in all. */
  countdown(): { readonly left: number; readonly of: number } {
    const session = runningIn(this.state);
    const { countInBars, route } = present(this.last);
    const countIn = session
      ? -secondsAt(session.route.pace, -countInBars * beatsPerBar(session.route.chart.meter))
      : (countInBars * 4 * 60) / route.tempo;
    const of = this.policy.resultAloneMs / 1000 + countIn;
    return { left: session ? untilBarOne(session) : of, of };
  }

  /** Is the next take's count-in sounding already? */
  isCounting(): boolean {
    return runningIn(this.state)?.getState().phase === 'running';
  }

  private async send(event: SittingEvent<T>): Promise<void> {
    const [state, ...effects] = sittingStep(this.policy, this.state, event);
    if (state !== this.state) this.store.set(state);
    await Promise.all(effects.map((effect) => this.perform(effect)));
  }

  private perform(effect: SittingEffect): void | Promise<void> {
    if (this.isLeft && !ALSO_WHEN_LEFT.has(effect.type)) return;
    switch (effect.type) {
      case 'open-input':
        return this.open(effect.turn, effect.settings);
      case 'begin':
        return this.begin(effect.settings);
      case 'count':
        return this.count(effect.takeId);
      case 'over':
        return this.world.over?.(effect.takeId, effect.kept, effect.cut);
      case 'discard':
        return void effect.session.discard();
      case 'leave':
        return effect.session.leave();
      case 'trash':
        return this.trash(effect.session, effect.isOver);
      default:
        return this.performNext(effect);
    }
  }

  /** What is done about the take after this one. */
  private performNext(effect: NextEffect): void {
    switch (effect.type) {
      case 'ready-early':
        return this.readyEarly(effect.session);
      case 'make-next':
        return this.makeNext();
      case 'drop-next':
        return this.dropNext();
      case 'begin-next-in':
        return this.later(effect.ms, () => {
          const settings = this.upcoming?.settings ?? this.world.nextSettings(this.last);
          void this.send({ type: 'next', settings });
        });
      case 'await-bar-one':
        return this.later(1000 * untilBarOne(effect.session), () => void this.send({ type: 'bar-one' }));
      case 'stop-waiting':
        return this.stopWaiting();
    }
  }

  private async open(turn: number, settings: TakeSettings): Promise<void> {
    const isOpen = await this.world.openInput();
    await this.send({ type: 'opened', turn, isOpen: isOpen && !this.isLeft, settings });
  }

  private async begin(settings: TakeSettings): Promise<void> {
    const isReady = this.upcoming?.settings === settings;
    const session = isReady ? present(this.upcoming).session : this.world.makeSession(settings);
    if (!isReady) this.dropNext();
    this.upcoming = null;
    this.last = settings;
    void this.send({ type: 'begun', session });
    session.subscribe(() => {
      const rolls = this.world.rolls();
      void this.send({ type: 'phase', session, state: session.getState(), rolls, settings });
    });
    await session.start();
  }

  private readyEarly(session: TakeSession): void {
    this.stopEarly();
    if (!this.world.rolls() || !Number.isFinite(session.left)) return;
    this.early = setTimeout(
      () => {
        if (runningIn(this.state) === session && this.world.rolls()) this.makeNext();
      },
      1000 * Math.max(0, session.left - READY_BEFORE_SECONDS),
    );
  }

  /** The same again with another band, made ready. */
  private makeNext(): void {
    this.stopEarly();
    if (this.upcoming) return;
    const settings = this.world.nextSettings(this.last);
    const session = this.world.makeSession(settings);
    this.upcoming = { session, settings };
    session.prepare().catch(() => undefined); // what is wrong is said when it is started
  }

  private dropNext(): void {
    this.stopEarly();
    void this.upcoming?.session.discard();
    this.upcoming = null;
  }

  private async count(takeId: string): Promise<void> {
    const { count, goesOn } = this.world;
    if (!count) return;
    try {
      const take = { takeId, outcome: await count(takeId) };
      await this.send({ type: 'counted', take, goesOn: goesOn?.([...this.state.counted, take]) ?? false });
    } catch (error) {
      const message = error instanceof Error ? error.message : String(error);
      await this.send({ type: 'not-counted', takeId, message });
    }
  }

  private async trash(session: TakeSession, isOver: boolean): Promise<void> {
    const recoverable = await (isOver ? session.throwAway() : session.discard());
    if (recoverable) this.world.trashed?.(session.id);
  }

  private later(ms: number, work: () => void): void {
    this.stopTimer();
    this.timer = setTimeout(work, ms);
  }
  private stopTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
  }
  private stopEarly(): void {
    if (this.early) clearTimeout(this.early);
    this.early = null;
  }
  private stopWaiting(): void {
    this.stopTimer();
    this.stopEarly();
  }
}

/** What is still done after the screen has gone. */
const ALSO_WHEN_LEFT: ReadonlySet<SittingEffect['type']> = new Set([
  'count',
  'discard',
  'drop-next',
  'leave',
  'stop-waiting',
  'trash',
]);

const untilBarOne = (session: TakeSession): number =>
  Math.max(0, -secondsAt(session.route.pace, session.position()));
