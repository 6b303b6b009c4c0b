import { readFileSync, writeFileSync } from 'node:fs';

const LOOKS = {
  first: { file: 'classifierWeights', name: 'FITTED' },
  second: { file: 'secondLookWeights', name: 'SECOND_FITTED' },
} as const;

/** Writes fitted networks where the core reads them: `write.ts first|second network.json …`. */
const { file, name } = LOOKS[process.argv[2] === 'second' ? 'second' : 'first'];
const networks = process.argv
  .slice(3)
  .map((path) => JSON.parse(readFileSync(path, 'utf8')) as { sizes: number[]; packed: string });
writeFileSync(
  `src/core/transcribe/${file}.ts`,
  `/** Fitted by \`scripts/ears\` to recorded notes kept for tuning, lines of soundfonts and computed strings; see docs/decisions/0007-ears.md. */
export const ${name} = [
${networks.map(({ sizes, packed }) => `  {\n    sizes: [${sizes.join(', ')}],\n    packed:\n      '${packed}',\n  },`).join('\n')}
];
`,
);
