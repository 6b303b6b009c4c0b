// Makes src/core/sound/pffft.ts: the Fourier transform of @echogarden/pffft-wasm as text, so that worker, server,
// browser and command line load it alike, at once and without a request. Run when the package changes.
import { readFileSync, writeFileSync } from 'node:fs';

const FOLDER = 'node_modules/@echogarden/pffft-wasm';
const { version } = JSON.parse(readFileSync(`${FOLDER}/package.json`, 'utf8'));
const binary = readFileSync(`${FOLDER}/dist/simd/pffft.wasm`).toString('base64');
const glue = readFileSync(`${FOLDER}/dist/simd/pffft.js`, 'utf8');
/** The compiler shortened the names under which the module exports its functions; its loader knows them. */
const shortOf = (name) => {
  const found = new RegExp(`"_${name}"\\]=wasmExports\\["(\\w+)"\\]`).exec(glue);
  if (!found) throw new Error(`${name} is not exported by the package any more`);
  return found[1];
};
const names = {
  allocate: shortOf('pffft_aligned_malloc'),
  prepare: shortOf('pffft_new_setup'),
  transform: shortOf('pffft_transform'),
  transformOrdered: shortOf('pffft_transform_ordered'),
  multiply: shortOf('pffft_zconvolve_accumulate'),
};
const start = /addOnInit\(wasmExports\["(\w+)"\]\)/.exec(glue)[1];
const memory = /wasmMemory=wasmExports\["(\w+)"\]/.exec(glue)[1];
const imports = Object.fromEntries(
  /wasmImports=\{([^}]*)\}/
    .exec(glue)[1]
    .split(',')
    .map((pair) => pair.split(':').reverse()),
);
const wanted = { fail: '___assert_fail', copy: '__emscripten_memcpy_js', grow: '_emscripten_resize_heap' };
writeFileSync(
  'src/core/sound/pffft.ts',
  `// Made by scripts/make-transform.mjs out of @echogarden/pffft-wasm ${version} (BSD-3-Clause, with its source in C).
/** The module's own names for what it exports and imports. */
export const NAMES = {
${Object.entries({ memory, start, ...names })
  .map(([long, short]) => `  ${long}: '${short}',`)
  .join('\n')}
${Object.entries(wanted)
  .map(([long, name]) => `  ${long}: '${imports[name]}',`)
  .join('\n')}
} as const;
/** The module in base 64. */
export const MODULE =
  '${binary}';
`,
);
