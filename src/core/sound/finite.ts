/** With zeros where a sample is no number. */
export function finite(block: Float32Array): Float32Array {
  for (const value of block)
    if (!Number.isFinite(value)) return block.map((sample) => (Number.isFinite(sample) ? sample : 0));
  return block;
}
