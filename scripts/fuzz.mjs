// npm run fuzz: damaged inputs for every reader, by the hour if need be.
import { bundleScript } from './bundle.mjs';

await bundleScript('fuzz');
await import('../dist/scripts/fuzz.mjs');
