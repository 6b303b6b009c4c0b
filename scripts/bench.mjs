// npm run bench: speed as ratios against a general-purpose peer and a plain reference, in one run.
import { bundleScript } from './bundle.mjs';

await bundleScript('bench');
await import('../dist/scripts/bench.mjs');
