import type { StandInCharacter } from '@/core/band';
import { beatAt, beatsPerBar, routeOf, secondsAt, type Route } from '@/core/chart';
import { createStore, unwrap, type Beats, present, type Seconds } from '@/core/shared';
import type { Transcription } from '@/core/transcribe';
import { BandPlayer, type BandLevels } from './band/player';
import { decoded } from './band/backings';
import { fileSource, type BackingSource } from './band/source';
import type { RecordingResources } from './recordingResources';
import type { TakeStore } from './persistence/localTakes';
import { KEEPS_NOTHING, type Keeper } from './persistence/keeping';
import { TakeKeeper, type Safety } from './persistence/takeKeeper';
import { HTTP_SERVER, newTakeId, ServerRefusal, type NewTake } from './persistence/serverTakes';
import { LiveNotes } from './liveNotes';
import type { CaptureBlock } from './input/captureMessage';
import { isAlive, twoNotes } from './input/firstLook';
import type { AudioInput } from './input/audioInput';
import { takeLock } from './takeLock';
import type { SessionState, SessionTrouble } from './sessionState';
import { beatsOf, newTakeOf, scoreOf, standInSound, type TakeSettings } from './takeSettings';
import { LiveListener } from './workers';

const TAIL_SECONDS = 0.6;
const LEAD_SECONDS = 0.2;
const MOST_GAP_FRAMES = 2 ** 20;
/** The server is waited for so long at the end of a take; then it is caught up with later. */
const PATIENCE_MS = 4_000;
/** What a take needs before its count-in. */
type Prepared = {
  readonly player: BandPlayer;
  readonly store: TakeStore | null;
  readonly solo: Float32Array | null;
};

/**
 * One take from the press of a key to its end: device, band, capture, keeping and listening on one audio clock.
 * The take's frame 0 and the band's beat 0 are both known in context time; the distance between them is
 * what the analysis is told.
 */
export class TakeSession {
  private readonly store = createStore<SessionState>({ phase: 'idle' });
  readonly id = newTakeId();
  readonly route: Route;
  /** What is heard while it is played. */
  readonly line = new LiveNotes();
  /** How long after its sound each note of the line was drawn, in seconds. */
  readonly drawnAfter: number[] = [];
  latency: AudioInput['latency'] = { seconds: 0, measured: false };
  private player: BandPlayer | null = null;
  /** What was heard of it, once it is over, and where beat 0 lies in that. */
  heard: { readonly notes: Transcription['notes']; readonly offsetSec: Seconds } | null = null;
  private listener: LiveListener | null = null;
  private keeper: Keeper | null = null;
  private solo: AudioBufferSourceNode | null = null;
  private deafen: (() => void) | null = null;
  private release: (() => void) | null = null;
  private firstFrame: number | null = null;
  private beatZero = Infinity;
  private kept = 0;
  private ended = false;
  private startAnyway: (() => void) | null = null;
  private readonly countIn: Beats;
  readonly endBeat: Beats;

  constructor(
    private readonly settings: TakeSettings,
    private readonly resources: RecordingResources,
    /** Whether its sound is kept, or only listened to. */
    private readonly isKept = true,
  ) {
    this.route = unwrap(routeOf(settings.chartText, settings.route));
    this.endBeat = beatsOf(this.route);
    this.countIn = settings.countInBars * beatsPerBar(this.route.chart.meter);
  }

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): SessionState {
    return this.store.get();
  }

  private become(state: SessionState): void {
    this.store.set(state);
  }

  private get context(): AudioContext | null {
    return this.resources.input.context;
  }

  /** Beats since bar 1 as the player hears them; negative in the count-in. */
  position(): Beats {
    if (!this.context || !Number.isFinite(this.beatZero)) return -this.countIn;
    return beatAt(
      this.route.pace,
      this.context.currentTime - this.beatZero - (this.context.outputLatency || 0),
    );
  }

  get safety(): Safety | null {
    return this.keeper?.safety ?? null;
  }
  /** The band could not be made further: the take goes on without it. */
  get bandFailed(): boolean {
    return this.player?.failed ?? false;
  }
  /** The browser has stopped the audio clock: take and band wait for it together. */
  get isHalted(): boolean {
    return this.state.phase === 'running' && this.resources.input.isHalted;
  }
  get punctuality(): BandPlayer['punctuality'] | null {
    return this.player?.punctuality ?? null;
  }

  /**
   * Makes everything ready that a take needs before its count-in: it may be done while the take before is
   * still playing its last bars.
   */
  prepare(): Promise<Prepared> {
    return (this.prepared ??= this.makeReady());
  }
  private prepared: Promise<Prepared> | null = null;

  private async makeReady(): Promise<Prepared> {
    const { context, device } = this.resources.input;
    if (!context || !device) throw new Error('the input is not open');
    const rate = context.sampleRate;
    const source = await this.source(context);
    const { level, levels } = this.settings.band;
    const listener = new LiveListener(rate, (notes) => this.line.add(notes));
    this.listener = listener;
    const player = new BandPlayer(context, source, levels, level, (samples) => listener.backing(samples));
    this.player = player;
    const [shelf, solo] = await Promise.all([
      this.resources.storage(),
      device.hands ? standInSound(this.settings, this.route, this.character, rate) : null,
      player.prepare(),
    ]);
    if (this.ended) this.silence();
    return { player, store: shelf, solo };
  }

  /** Starts on a rig that is open. */
  async start(): Promise<void> {
    if (this.state.phase !== 'idle') return;
    this.become({ phase: 'opening' });
    const { input: rig } = this.resources;
    try {
      this.release = await takeLock();
      if (!this.release) return this.fail({ kind: 'second-take' });
      const { context, device } = rig;
      if (!context || !device) return this.giveUp({ kind: 'no-input' });
      const rate = context.sampleRate;
      const { player, store: shelf, solo } = await this.prepare();
      if (!device.hands && !(await this.somethingComesIn())) return;
      if (this.ended) return;
      this.latency = rig.latency;
      const take = newTakeOf(this.settings, this.route, rig, rate, device.label);
      this.keeper = this.isKept ? this.keeperOf(take, shelf) : KEEPS_NOTHING;
      rig.listenAnew();
      this.beatZero = player.start(context.currentTime + LEAD_SECONDS);
      if (solo && device.hands) this.play(solo, device.hands);
      const stopHearing = rig.hear((block) => this.hear(block));
      const stopWatching = rig.subscribe(() => {
        if (rig.state.phase !== 'open') void this.stop(true);
      });
      this.deafen = () => {
        stopHearing();
        stopWatching();
      };
      this.become({ phase: 'running' });
    } catch (error) {
      if (this.ended) return;
      this.giveUp(troubleOf(error, 'band'));
    }
  }

  private keeperOf(take: NewTake, shelf: TakeStore | null): TakeKeeper {
    const { id, settings } = this;
    const local = { id, take, title: settings.title, beganAt: Date.now(), offsetSec: 0, ending: null };
    return new TakeKeeper(local, shelf, HTTP_SERVER);
  }

  private async source(context: AudioContext): Promise<BackingSource> {
    const band = await this.resources.band(context.sampleRate).source(scoreOf(this.settings, this.route));
    const { backing } = this.settings;
    return backing
      ? fileSource(
          band,
          await decoded(backing.bytes, context),
          Math.round(backing.barOneSec * context.sampleRate),
        )
      : band;
  }

  private get character(): StandInCharacter {
    const { choice } = this.resources.input;
    return choice?.kind === 'stand-in' ? choice.character : 'steady';
  }

  private play(samples: Float32Array, hands: AudioNode): void {
    const context = present(this.context);
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    this.solo = new AudioBufferSourceNode(context, { buffer });
    this.solo.connect(hands);
    this.solo.start(this.beatZero);
  }

  /**
   * Looks whether the input gives anything; where it does not, waits for two notes, or for the player to say
   * that it does not matter.
   */
  private async somethingComesIn(): Promise<boolean> {
    const { input: rig } = this.resources;
    if (!(await isAlive(rig, () => this.ended))) {
      if (this.ended || rig.state.phase !== 'open') return false;
      this.become({ phase: 'waiting' });
      const wait = twoNotes(rig);
      this.startAnyway = wait.enough;
      await wait.done;
      this.startAnyway = null;
    }
    return !this.ended && rig.state.phase === 'open';
  }

  /** Counts in although nothing comes in. */
  startAllTheSame(): void {
    this.startAnyway?.();
  }

  setBandLevel(level: number): void {
    this.player?.setLevel(level);
  }
  setLevels(levels: BandLevels): void {
    this.player?.setLevels(levels);
  }

  private hear({ frame, samples }: CaptureBlock): void {
    if (this.state.phase !== 'running') return;
    if (this.firstFrame === null) {
      this.firstFrame = frame;
      this.keeper?.amend(this.offset());
    }
    this.fillGap(frame - this.firstFrame - this.kept);
    this.keep(samples);
    const end =
      this.beatZero + secondsAt(this.route.pace, this.endBeat) + this.latency.seconds + TAIL_SECONDS;
    if (this.context && (frame + samples.length) / this.context.sampleRate >= end) void this.stop(false);
  }

  private keep(samples: Float32Array): void {
    this.kept += samples.length;
    this.keeper?.add(samples);
    this.listener?.block(samples);
  }

  /** Frames that never came stay silent in the take, so that everything after them keeps its time. */
  private fillGap(frames: number): void {
    if (frames > 0 && frames <= MOST_GAP_FRAMES) {
      this.gaps++;
      this.keep(new Float32Array(frames));
    }
  }
  /** How often frames were missing. */
  gaps = 0;

  /** A moment of the take, in seconds from its first frame, in beats since bar 1 as the player heard them. */
  beatAt(seconds: number): Beats {
    return beatAt(this.route.pace, seconds - this.offset());
  }

  /** Told when a note of the live line is on the screen: keeps how long after its sound that was. */
  drawn(onsetSec: number): void {
    const { context, firstFrame } = this;
    if (!context || firstFrame === null) return;
    requestAnimationFrame(() =>
      this.drawnAfter.push(context.currentTime - firstFrame / context.sampleRate - onsetSec),
    );
  }

  /** Where beat 0 lies in the recording, in seconds. */
  private offset(): number {
    return this.beatZero - (this.firstFrame ?? 0) / (this.context?.sampleRate ?? 1) + this.latency.seconds;
  }

  /** Ends the take and keeps it. @param cut the device went away by itself */
  async stop(cut: boolean): Promise<void> {
    if (this.state.phase === 'waiting' || this.state.phase === 'opening') return void this.discard();
    if (this.state.phase !== 'running') return;
    this.become({ phase: 'finishing' });
    const { keeper, listener } = this;
    this.silence();
    if (!keeper || !listener) return;
    try {
      if (this.kept === 0) {
        await keeper.discard();
        return this.fail({ kind: 'nothing-recorded' });
      }
      const transcription = await listener.finish();
      const offsetSec = this.offset();
      const kept = await keeper.finish({ offsetSec, transcription }, PATIENCE_MS);
      this.heard = { notes: transcription.notes, offsetSec };
      const notes = transcription.notes.length;
      this.become(
        notes === 0 && kept
          ? { phase: 'silent', takeId: this.id }
          : { phase: 'done', takeId: this.id, cut, kept, notes },
      );
    } catch (error) {
      this.fail(troubleOf(error, 'not-finished'));
    }
  }

  /** Ends the take and puts it in the trash. @returns whether it can be brought back */
  async discard(): Promise<boolean> {
    const { keeper } = this;
    this.silence();
    this.startAnyway?.();
    this.listener?.close();
    this.become({ phase: 'idle' });
    return (await keeper?.discard().catch(() => false)) ?? false;
  }

  /** Puts a finished take in the trash after all. @returns whether it can be brought back */
  async throwAway(): Promise<boolean> {
    return (await this.keeper?.discard().catch(() => false)) ?? false;
  }

  private silence(): void {
    this.ended = true;
    this.deafen?.();
    this.deafen = null;
    // what is still being kept does not keep the next take from beginning
    this.unlock();
    this.player?.stop();
    this.solo?.stop();
    this.solo = null;
  }

  private abandon(): void {
    this.silence();
    this.startAnyway?.();
    this.keeper?.abandon();
    this.listener?.close();
    this.unlock();
  }

  /** Seconds until the last bar is over; Infinity before the count-in. */
  get left(): number {
    return this.context && Number.isFinite(this.beatZero)
      ? this.beatZero + secondsAt(this.route.pace, this.endBeat) - this.context.currentTime
      : Infinity;
  }

  /** The page goes away: what was kept is offered again. */
  leave(): void {
    if (this.state.phase === 'running') void this.stop(false);
    else this.abandon();
  }

  private giveUp(trouble: SessionTrouble): void {
    this.abandon();
    this.fail(trouble);
  }

  private fail(trouble: SessionTrouble): void {
    this.become({ phase: 'failed', trouble });
  }

  private unlock(): void {
    this.release?.();
    this.release = null;
  }
}

const troubleOf = (error: unknown, kind: 'band' | 'not-finished'): SessionTrouble =>
  error instanceof ServerRefusal ? { kind: 'said', words: error.message } : { kind };
