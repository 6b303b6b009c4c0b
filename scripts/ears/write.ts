import { readFileSync, writeFileSync } from 'node:fs';

const LOOKS = {
  first: { file: 'classifierWeights', name: 'FITTED' },
  second: { file: 'secondLookWeights', name: 'SECOND_FITTED' },
} as const;
const MOST = 127;

/** Writes fitted networks where the core reads them: `write.ts first|second network.json …`. */
const { file, name } = LOOKS[process.argv[2] === 'second' ? 'second' : 'first'];
const networks = process.argv
  .slice(3)
  .map((path) => JSON.parse(readFileSync(path, 'utf8')) as { sizes: number[]; packed: string })
  .map(({ sizes, packed }) => ({ sizes, packed: asBytes(sizes, packed) }));
writeFileSync(
  `src/core/transcribe/${file}.ts`,
  `/** Fitted by \`scripts/ears\` to recorded notes kept for tuning, lines of soundfonts and computed strings; see docs/decisions/0007-ears.md. */
export const ${name} = [
${networks.map(({ sizes, packed }) => `  {\n    sizes: [${sizes.join(', ')}],\n    packed:\n      '${packed}',\n  },`).join('\n')}
];
`,
);

/**
 * A network of 32-bit floats as `unpack` reads it: mean and spread, of each layer a scale a row and the biases, all as
 * floats; then the weights as bytes, each row in steps of its scale.
 */
function asBytes(sizes: readonly number[], packed: string): string {
  const bytes = Buffer.from(packed, 'base64');
  const floats = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  const kept = [...floats.subarray(0, 2 * sizes[0]!)];
  const weights: number[] = [];
  let at = kept.length;
  for (const [index, rows] of sizes.slice(1).entries()) {
    const columns = sizes[index]!;
    for (let row = 0; row < rows; row++) {
      const values = floats.subarray(at, (at += columns));
      const scale = values.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-12) / MOST;
      kept.push(scale);
      weights.push(...values.map((value) => Math.round(value / scale)));
    }
    kept.push(...floats.subarray(at, (at += rows)));
  }
  const head = new Uint8Array(Float32Array.from(kept).buffer);
  return Buffer.concat([head, new Uint8Array(Int8Array.from(weights).buffer)]).toString('base64');
}
