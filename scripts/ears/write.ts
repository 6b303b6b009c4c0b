import { readFileSync, writeFileSync } from 'node:fs';

/** Writes fitted networks where the core reads them: `write.ts network.json …`. */
const networks = process.argv
  .slice(2)
  .map((file) => JSON.parse(readFileSync(file, 'utf8')) as { sizes: number[]; packed: string });
writeFileSync(
  'src/core/transcribe/classifierWeights.ts',
  `/** Fitted by \`scripts/ears\` to the recorded notes kept for tuning and to lines of a soundfont; see docs/decisions/0007-ears.md. */
export const FITTED = [
${networks.map(({ sizes, packed }) => `  {\n    sizes: [${sizes.join(', ')}],\n    packed:\n      '${packed}',\n  },`).join('\n')}
];
`,
);
