import { closeSync, mkdirSync, openSync, writeSync } from 'node:fs';
import { loadGuitar, type Instrument } from '../../tests/corpora/guitarSamples';
import { PROGRAMS } from '../../tests/corpora/soundfontSet';
import { variedTake, type Source } from '../../tests/corpora/variety';
import { examplesOf } from './examples';

/** Writes the examples of takes `from` … `to` (half-open) into a file: one row of 32-bit floats each, its label first. */
const [file, from, to] = [process.argv[2]!, Number(process.argv[3]), Number(process.argv[4])];
const guitars = await Promise.all((['acoustic', 'electric', 'nylon'] as Instrument[]).map(async (name): Promise<Source> => ({ name, guitar: (await loadGuitar(name)).filter(({ share }) => share === 'tune') })));
const programs = (Object.keys(PROGRAMS) as (keyof typeof PROGRAMS)[]).map((program): Source => ({ name: program, program }));
const sources = [...guitars, ...programs.slice(0, 4), ...guitars, ...programs.slice(4)];
mkdirSync(file.split('/').slice(0, -1).join('/') || '.', { recursive: true });
const out = openSync(file, 'w');
let [rows, reached, truth, positive] = [0, 0, 0, 0];
for (let seed = from; seed < to; seed++) {
  const source = sources[seed % sources.length]!;
  const found = examplesOf(variedTake(source, seed));
  for (const { features, label } of found.examples) {
    writeSync(out, new Uint8Array(Float32Array.from([label, seed, ...features]).buffer));
    if (label === 1) positive++;
  }
  rows += found.examples.length;
  reached += found.reached;
  truth += found.truth;
  if (seed % 20 === 19) console.log(`${seed + 1 - from} takes, ${rows} claims (${found.examples[0]?.features.length} features), ${positive} hold; ${((100 * reached) / truth).toFixed(2)} % of ${truth} notes within reach`);
}
closeSync(out);
