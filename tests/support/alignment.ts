/** The fake device works in 10 ms; on a starved machine the browser may put in such a piece of silence, and everything after is later. */
const DEVICE_BLOCK = 441;
const SIXTEEN_BIT_STEP = 2 / 32_768;

/**
 * Where one recording lies in another, by cross-correlating a window from its middle.
 * @returns `offset` in samples from `played` to `kept`, the correlation there, and the share of windows that are the same to the bit,
 * each at that offset or a few device blocks beside it
 */
export function alignment(kept: Float32Array, played: Float32Array): { offset: number; correlation: number; exactShare: number } {
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
  let [same, all] = [0, 0];
  for (let at = 0; at + size <= played.length; at += size) {
    if (at + best.offset < DEVICE_BLOCK * 4 || at + best.offset + size + DEVICE_BLOCK * 4 > kept.length) continue;
    all++;
    if ([0, -1, 1, -2, 2, -3, 3].some((blocks) => isSame(played, kept, at, at + best.offset + blocks * DEVICE_BLOCK, size))) same++;
  }
  return { ...best, exactShare: same / Math.max(1, all) };
}

function isSame(played: Float32Array, kept: Float32Array, a: number, b: number, size: number): boolean {
  for (let n = 0; n < size; n++) if (Math.abs(played[a + n]! - kept[b + n]!) > SIXTEEN_BIT_STEP) return false;
  return true;
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
