import { chorusAt } from '../../chart';
import { pick, type Beats, type Midi, type Random, present } from '../../shared';
import type { Chord } from '../../music';
import type { BandEvent } from '../events';
import { offBeat, type BandFeel } from '../feel';
import { barsOf, chordAt, type WalkedBar, type WalkForm } from '../walk';
import { RHYTHMS, type Rhythm } from './rhythms';
import { AT_REST, voiceLed } from './voicing';

type Hit = { readonly beat: Beats; readonly beats: Beats; readonly loudness: number };

/** Feels whose last off-beat of a chord may already be the next one. */
const PUSHES: ReadonlySet<BandFeel> = new Set(['swing', 'bossa', 'funk', 'five']);
/** An off-beat this near the next chord belongs to it. */
const PUSHED_WITHIN: Beats = 0.5;

/**
 * Voice-led chords under a rhythm that varies by the seed, sparser in the first chorus. Each chord sounds at
 * least once while it lasts.
 */
export function comping(tune: WalkForm, feel: BandFeel, random: Random): BandEvent[] {
  const late = offBeat(feel, tune.timeline.tempo);
  const events: BandEvent[] = [];
  let hand: readonly Midi[] = AT_REST;
  let before: Rhythm | null = null;
  for (const bar of barsOf(tune)) {
    const choices = RHYTHMS[feel].filter((one) => one !== before);
    const rhythm: Rhythm = pick(
      random,
      bar.chorus === 0 ? choices.slice(0, Math.max(2, choices.length - 1)) : choices,
    );
    before = rhythm;
    const hits = rhythm.map(([beat, place, beats]): Hit => ({
      beat: bar.start + beat + (place === 1 ? late : place),
      beats,
      loudness: place === 0 ? 0.6 : 0.64,
    }));
    for (const hit of withEveryChord(
      tune,
      bar,
      hits.filter(({ beat }) => beat < bar.end - 1e-6),
    )) {
      const { chord, until } = meant(tune, feel, hit.beat);
      if (!chord) continue;
      hand = voiceLed(chord, hand);
      for (const midi of hand)
        events.push({
          part: 'chords',
          beat: hit.beat,
          beats: Math.min(hit.beats, until - hit.beat),
          midi,
          loudness: hit.loudness * (0.94 + 0.06 * random()),
        });
    }
  }
  return events;
}

/**
 * The chord a stroke means, and the beat it must be let go by: what sounds, or on the last off-beat the next
 * one, pushed.
 */
function meant(tune: WalkForm, feel: BandFeel, beat: Beats): { chord: Chord | null; until: Beats } {
  const { timeline, choruses } = tune;
  const ends = (at: Beats) => {
    const offset = chorusAt(timeline, at) * timeline.formBeats;
    return offset + present(timeline.chordSpans.findLast(({ start }) => start <= at - offset + 1e-6)).end;
  };
  const now = chordAt(tune, beat);
  const end = ends(beat);
  const offBeatHere = Math.abs(beat - Math.round(beat)) > 0.1;
  if (
    PUSHES.has(feel) &&
    offBeatHere &&
    end - beat <= PUSHED_WITHIN &&
    end < choruses * timeline.formBeats - 1e-6
  ) {
    const next = chordAt(tune, end + 1e-6);
    if (next && now && next.symbol !== now.symbol) return { chord: next, until: ends(end + 1e-6) };
  }
  return { chord: now, until: end };
}

/** A chord that the rhythm would pass over is struck where it begins. */
function withEveryChord({ timeline }: WalkForm, bar: WalkedBar, rhythm: readonly Hit[]): Hit[] {
  const offset = bar.start - bar.span.start;
  const missed = timeline.chordSpans.filter(
    ({ bar: own, start, end }) =>
      own === bar.span.index &&
      !rhythm.some(({ beat }) => beat - offset >= start - 1e-6 && beat - offset < end - PUSHED_WITHIN - 1e-6),
  );
  const added = missed.map(({ start, end }): Hit => ({
    beat: start + offset,
    beats: Math.min(0.8, end - start),
    loudness: 0.55,
  }));
  return [...rhythm, ...added].sort((a, b) => a.beat - b.beat);
}
