import Joi from 'joi';
import { LIMITS } from '@/core/contracts';
import { secondsAt, type Pace } from '@/core/chart';
import { paceSchema, planSchema } from '@/core/formats';
import type { PlanWords } from '@/core/plan';
import type { Beats } from '@/core/shared';

/** What a running take shows on its stage. */
export type RunningStage = {
  readonly chartText: string;
  readonly choruses: number;
  readonly pace: Pace;
  readonly plan: PlanWords;
  readonly help: 0 | 1 | 2 | 3;
  readonly position: number;
  /** Where it is now, as the player hears it. */
  readonly beat: Beats;
};
/** What Record tells other screens: the take that runs, and what the pedal would do. */
export type SharedStage = { readonly running: RunningStage | null; readonly does: string | null };

const running = Joi.object<RunningStage>({
  chartText: Joi.string().max(LIMITS.chart.characters).required(),
  choruses: Joi.number().integer().min(1).max(100).required(),
  pace: paceSchema.required(),
  plan: planSchema.required(),
  help: Joi.number().valid(0, 1, 2, 3).required(),
  position: Joi.number().integer().min(0).max(36).required(),
  beat: Joi.number().min(-1_000).max(1e6).required(),
});
export const sharedStageBody = Joi.object<SharedStage>({
  running: running.allow(null).required(),
  does: Joi.string().max(80).allow(null).required(),
});
export const pressBody = Joi.object<{ press: true }>({ press: Joi.boolean().valid(true).required() });

/** What a second screen is told: a stage and the moment of its beat 0 by this machine's clock, and what time that is. */
export type StageEvent =
  | { readonly kind: 'stage'; readonly stage: SharedStage; readonly zeroAt: number; readonly now: number }
  | { readonly kind: 'now'; readonly now: number }
  | { readonly kind: 'press'; readonly now: number };

const NOTHING: SharedStage = { running: null, does: null };
/** Record says every second that it is there: one that does not is gone. */
const GONE_MS = 5_000;
const BEAT_MS = 1_000;

/** Passes the running stage on to other screens, and their presses back. Kept in memory: it is over with the take. */
class StageHub {
  private stage: SharedStage = NOTHING;
  private zeroAt = 0;
  private saidAt = -Infinity;
  private readonly listeners = new Set<(event: StageEvent) => void>();
  private clock: ReturnType<typeof setInterval> | null = null;

  constructor(private readonly now: () => number = Date.now) {}

  show(stage: SharedStage): void {
    this.stage = stage;
    this.saidAt = this.now();
    if (stage.running) this.zeroAt = this.now() - 1_000 * secondsAt(stage.running.pace, stage.running.beat);
    this.tell(this.told());
  }

  press(): void {
    this.tell({ kind: 'press', now: this.now() });
  }

  /** @returns how to stop listening */
  listen(listener: (event: StageEvent) => void): () => void {
    this.listeners.add(listener);
    listener(this.told());
    this.clock ??= setInterval(() => this.tick(), BEAT_MS).unref();
    return () => {
      this.listeners.delete(listener);
      if (this.listeners.size > 0 || !this.clock) return;
      clearInterval(this.clock);
      this.clock = null;
    };
  }

  private tick(): void {
    const isGone = this.stage !== NOTHING && this.now() - this.saidAt > GONE_MS;
    if (isGone) this.stage = NOTHING;
    this.tell(isGone ? this.told() : { kind: 'now', now: this.now() });
  }

  private told(): StageEvent {
    return { kind: 'stage', stage: this.stage, zeroAt: this.zeroAt, now: this.now() };
  }

  private tell(event: StageEvent): void {
    for (const listener of this.listeners) listener(event);
  }
}

/** Other devices of the house may come in: see `npm run demo -- --lan`. */
export const isOpenToTheHouse = (): boolean => process.env.IDLE_WANDER_LAN === 'yes';

const held = globalThis as { idleWanderStage?: StageHub };
export const stageHub = (): StageHub => (held.idleWanderStage ??= new StageHub());
export const newStageHub = (now: () => number): StageHub => new StageHub(now);
