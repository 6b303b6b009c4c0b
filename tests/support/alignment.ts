/**
 * Where one recording lies in another, piece by piece. The browser's fake microphone puts in 10 ms of silence where a busy machine
 * starves it, and everything after is later: what was played is therefore followed through the take, not lined up once.
 */
export type Alignment = {
  /** Samples from a place in `played` to the same sound in `kept`. */
  readonly offsetAt: (sample: number) => number;
  /** Offset of the first piece. */
  readonly offset: number;
  /** Share of the pieces that are the same to the bit at their offset. */
  readonly exactShare: number;
};

const PIECE = 8192;
const REACH = 13_230;
const SIXTEEN_BIT_STEP = 2 / 32_768;

export function alignment(kept: Float32Array, played: Float32Array): Alignment {
  const middle = Math.floor(played.length / 2 / PIECE) * PIECE;
  const first = bestOffset(kept, played, middle, 0, kept.length);
  const pieces: { at: number; offset: number; same: boolean }[] = [];
  const follow = (from: number, step: number) => {
    let near = first;
    for (let at = from; at >= 0 && at + PIECE <= played.length; at += step) {
      if (at + near < 0 || at + near + PIECE > kept.length) continue;
      if (!isSame(played, kept, at, at + near)) near = bestOffset(kept, played, at, near, REACH);
      pieces.push({ at, offset: near, same: isSame(played, kept, at, at + near) });
    }
  };
  follow(middle, PIECE);
  follow(middle - PIECE, -PIECE);
  pieces.sort((a, b) => a.at - b.at);
  const offsetAt = (sample: number) =>
    (pieces.findLast((piece) => piece.at <= sample) ?? pieces[0])?.offset ?? first;
  return {
    offsetAt,
    offset: pieces[0]?.offset ?? first,
    exactShare: pieces.filter((piece) => piece.same).length / Math.max(1, pieces.length),
  };
}

/** The offset within reach of one where a window of the piece correlates best; of near equals the one to the bit. */
function bestOffset(
  kept: Float32Array,
  played: Float32Array,
  at: number,
  near: number,
  reach: number,
): number {
  const size = 2048;
  let best = { offset: near, score: -1 };
  for (let offset = near - reach; offset <= near + reach; offset++) {
    const start = at + offset;
    if (start < 0 || start + PIECE > kept.length) continue;
    if (isSame(played, kept, at, start)) return offset;
    let [cross, own, other] = [0, 1e-9, 1e-9];
    for (let n = 0; n < size; n += 16) {
      cross += played[at + n]! * kept[start + n]!;
      own += kept[start + n]! ** 2;
      other += played[at + n]! ** 2;
    }
    const score = cross / Math.sqrt(own * other);
    if (score > best.score) best = { offset, score };
  }
  return best.offset;
}

function isSame(played: Float32Array, kept: Float32Array, a: number, b: number): boolean {
  for (let n = 0; n < PIECE; n++)
    if (!(Math.abs((played[a + n] ?? 0) - (kept[b + n] ?? 0)) <= SIXTEEN_BIT_STEP)) return false;
  return true;
}
