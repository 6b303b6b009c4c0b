/** Highest and lowest sample of each of so many equal pieces. */
export type Peaks = readonly (readonly [number, number])[];

const HEADER = 44;

/** The outline of a stretch of a take, by a range of its bytes: the rest of the sound stays where it is. */
export async function peaksOf(id: string, fromSec: number, toSec: number, count: number): Promise<Peaks> {
  const address = `/api/takes/${id}/audio`;
  const head = new DataView(
    await (await fetch(address, { headers: { range: `bytes=0-${HEADER - 1}` } })).arrayBuffer(),
  );
  const [rate, bits] = [head.getUint32(24, true), head.getUint16(34, true)];
  const width = bits / 8;
  const [from, to] = [Math.max(0, Math.round(fromSec * rate)), Math.max(1, Math.round(toSec * rate))];
  const answer = await fetch(address, {
    headers: { range: `bytes=${HEADER + from * width}-${HEADER + to * width - 1}` },
  });
  if (!answer.ok) return [];
  return outline(new DataView(await answer.arrayBuffer()), width, count, to - from);
}

/** @param frames how many the stretch has; those past the end of the sound are silent */
export function outline(view: DataView, width: number, count: number, frames: number): Peaks {
  const there = Math.floor(view.byteLength / width);
  const sample = (n: number) =>
    width === 2
      ? view.getInt16(n * 2, true) / 32_768
      : ((view.getInt8(n * 3 + 2) << 16) | view.getUint16(n * 3, true)) / 8_388_608;
  return Array.from({ length: count }, (_, piece) => {
    let [high, low] = [0, 0];
    for (
      let n = Math.floor((piece * frames) / count);
      n < Math.min(there, Math.floor(((piece + 1) * frames) / count));
      n++
    ) {
      const value = sample(n);
      high = Math.max(high, value);
      low = Math.min(low, value);
    }
    return [high, low] as const;
  });
}
