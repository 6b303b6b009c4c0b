import { soundingAfter } from '../../chart';
import { isChange, type Chord } from '../../music';
import type { Scene } from './belonging';
import { printedInterval, voiceTier } from './ground';
import { HEIGHT, type Belonging, type Height, type Span, type Voice } from '../notes/voice';
import { EPSILON } from '../notes/windows';

/** The spans of one note and the stretch under each. */
export type LaidSpans = { readonly spans: readonly Span[]; readonly stretches: readonly number[] };

/**
 * A note cut where the chord under it changes; its first part belongs with the note, the later ones are judged anew.
 * Rule: 2-theory, "Tier and height": "A note held across a change is two spans in height and time, one in counts".
 * @param until what rings past the last chorus is cut there
 */
export function spansOf(
  scene: Scene,
  voice: Voice,
  belonging: Belonging,
  height: Height,
  until: number,
): LaidSpans {
  const spans: Span[] = [];
  const stretches: number[] = [];
  const end = Math.min(voice.end, until);
  let now = belonging.sounding;
  let from = voice.onset;
  for (;;) {
    let next = soundingAfter(scene.timeline, now);
    while (next.start < end - EPSILON && !isBorder(now.stretch.chord, next.stretch.chord))
      next = soundingAfter(scene.timeline, next);
    const to = next.start < end - EPSILON ? next.start : end;
    const ground = scene.grounds[now.stretch.index]!;
    spans.push({
      chord: now.stretch.chord?.symbol ?? null,
      interval: printedInterval(ground, voice),
      height: spans.length === 0 ? height : HEIGHT[voiceTier(ground, voice)],
      beats: Math.max(0, to - from),
    });
    stretches.push(now.stretch.index);
    if (to >= end - EPSILON) return { spans, stretches };
    [now, from] = [next, to];
  }
}

const isBorder = (before: Chord | null, now: Chord | null): boolean =>
  before && now ? isChange(before, now) : before !== now;
