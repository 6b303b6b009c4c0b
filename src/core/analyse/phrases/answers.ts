import { formPositionOf, type Timeline } from '../../chart';
import type { Phrase } from './phrases';
import { defined } from '../../shared';

/**
 * The phrase each phrase answers, by index; null for most.
 * Rule T10.4: Call and answer: neighbouring phrases, lengths within 25 %, gap 1–4 beats, same start in the
 * bar (±0.5 beat) or a shared motif.
 */
export function answersOf(phrases: readonly Phrase[], timeline: Timeline): (number | null)[] {
  return phrases.map((phrase, index) => {
    const call = phrases[index - 1];
    if (!call) return null;
    const [asked, said] = [call.endBeat - call.startBeat, phrase.endBeat - phrase.startBeat];
    const gap = phrase.startBeat - call.endBeat;
    if (Math.abs(asked - said) > 0.25 * Math.max(asked, said) + 1e-6 || gap < 1 - 1e-6 || gap > 4 + 1e-6)
      return null;
    const shared = phrase.motif !== undefined && phrase.motif === call.motif;
    return shared || sameStart(timeline, call.startBeat, phrase.startBeat) ? index - 1 : null;
  });
}

function sameStart(timeline: Timeline, a: number, b: number): boolean {
  const inBar = (beat: number) =>
    formPositionOf(timeline, beat + Math.ceil(Math.max(0, -beat) / timeline.formBeats) * timeline.formBeats);
  const [first, second] = [inBar(a), inBar(b)];
  const bar = defined(timeline.bars[second.bar]);
  const apart = Math.abs(first.beatInBar - second.beatInBar);
  return Math.min(apart, bar.end - bar.start - apart) <= 0.5 + 1e-6;
}
