/**
 * Where one recording lies in another, by cross-correlating a window from its middle.
 * @returns `offset` = samples by which `kept` starts later than `played` is negative, earlier positive; and how equal they are from there on
 */
export function alignment(kept: Float32Array, played: Float32Array): { offset: number; correlation: number; greatestDifference: number } {
  const size = 4096;
  const middle = loudWindow(played, size);
  const window = played.subarray(middle, middle + size);
  const energy = Math.sqrt(window.reduce((sum, value) => sum + value * value, 0));
  let best = { offset: 0, correlation: -1 };
  for (let at = 0; at + size <= kept.length; at++) {
    let [cross, own] = [0, 0];
    for (let n = 0; n < size; n += 8) {
      cross += window[n]! * kept[at + n]!;
      own += kept[at + n]! ** 2;
    }
    const rough = cross / (energy * Math.sqrt(own * 8) || 1);
    // the rough sum sees every eighth sample: it only says where an exact look is worth while
    if (rough * 8 > best.correlation - 0.2) {
      const correlation = exact(window, kept, at, energy);
      if (correlation > best.correlation) best = { offset: at - middle, correlation };
    }
  }
  let greatestDifference = 0;
  for (let n = 0; n < size * 10 && middle + n < played.length && middle + n + best.offset < kept.length; n++)
    greatestDifference = Math.max(greatestDifference, Math.abs(played[middle + n]! - kept[middle + n + best.offset]!));
  return { ...best, greatestDifference };
}

function exact(window: Float32Array, kept: Float32Array, at: number, energy: number): number {
  let [cross, own] = [0, 0];
  for (let n = 0; n < window.length; n++) {
    cross += window[n]! * kept[at + n]!;
    own += kept[at + n]! ** 2;
  }
  return cross / (energy * Math.sqrt(own) || 1);
}

/** The loudest stretch of the middle third. */
function loudWindow(samples: Float32Array, size: number): number {
  let [best, most] = [0, -1];
  for (let at = Math.floor(samples.length / 3); at + size < (samples.length * 2) / 3; at += size) {
    const energy = samples.subarray(at, at + size).reduce((sum, value) => sum + value * value, 0);
    if (energy > most) [best, most] = [at, energy];
  }
  return best;
}
