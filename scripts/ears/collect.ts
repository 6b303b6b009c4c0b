import { closeSync, existsSync, mkdirSync, openSync, writeSync } from 'node:fs';
import { loadGuitar, type Instrument } from '../../tests/corpora/guitarSamples';
import { modelGuitar } from '../../tests/corpora/modelGuitars';
import { BANKS, PROGRAMS, type Bank } from '../../tests/corpora/soundfontSet';
import { madeGuitar, variedTake, type Focus, type Source } from '../../tests/corpora/variety';
import { pluginsMissing } from '../../tests/corpora/plugins';
import { examplesOf } from './examples';
import { elementAt } from '@/core/shared';
import { ALIGNED_UNIT, ALIGNED_VALUES } from '@/core/transcribe';

/**
 * Writes the examples of takes `from` … `to` (half-open) into a file: a row each, its label, the seed of its take and
 * its features as 32-bit floats, at the second look the sound around it as bytes. The last arguments say of which look,
 * first or second, and of what kind of take: any, or driven.
 */
const [file, from, to] = [elementAt(process.argv, 2), Number(process.argv[3]), Number(process.argv[4])];
const look = process.argv[5] === 'second' ? 'second' : 'first';
const focus: Focus = process.argv[6] === 'driven' ? 'driven' : 'any';
const missing = pluginsMissing() ?? Object.values(BANKS).find((bank) => !existsSync(bank));
if (missing) throw new Error(`Not there, and needed to collect: ${missing}`);
const guitars = await Promise.all(
  (['acoustic', 'electric', 'nylon'] as Instrument[]).map(async (name): Promise<Source> => ({
    name,
    guitar: (await loadGuitar(name)).filter(({ share }) => share === 'tune'),
  })),
);
const programs = (Object.keys(PROGRAMS) as (keyof typeof PROGRAMS)[]).map((program): Source => ({
  name: program,
  program,
}));
const models = (['noiseBurst', 'twoStrings'] as const).map((name): Source => ({
  name,
  guitar: modelGuitar(name),
}));
const BANKS_HEARD: readonly Bank[] = [
  ...(['fluid', 'small', 'patches', 'fluid', 'small'] as const),
  ...(['patches', 'general', 'fluid', 'small', 'patches'] as const),
];
/**
 * Real guitars most, then other plucked strings so that no one timbre is learnt by heart; through drives every other
 * guitar is computed, each of another make.
 */
const sourceOf = (seed: number): Source => {
  if (focus === 'driven' && seed % 2 === 1) return { name: 'made', guitar: madeGuitar(seed) };
  const [turn, round] = [seed % 20, Math.floor(seed / 20)];
  if (turn < 6) return elementAt(guitars, turn % 3);
  if (turn < 16)
    return { ...elementAt(programs, (round + turn) % 7), bank: elementAt(BANKS_HEARD, turn - 6) } as Source;
  if (turn < 18) return elementAt(models, turn % 2);
  return turn < 19 ? elementAt(programs, 7 + (round % 3)) : { name: 'made', guitar: madeGuitar(seed) };
};
mkdirSync(file.split('/').slice(0, -1).join('/') || '.', { recursive: true });
const out = openSync(file, 'w');
let [rows, reached, truth, positive] = [0, 0, 0, 0];
for (let seed = from; seed < to; seed++) {
  const source = sourceOf(seed);
  const found = examplesOf(variedTake(source, seed, focus), look);
  for (const { features, label } of found.examples) {
    const known = look === 'second' ? features.length - ALIGNED_VALUES : features.length;
    writeSync(out, new Uint8Array(Float32Array.from([label, seed, ...features.subarray(0, known)]).buffer));
    writeSync(
      out,
      Uint8Array.from(features.subarray(known), (value) => Math.round(value * ALIGNED_UNIT)),
    );
    if (label === 1) positive++;
  }
  rows += found.examples.length;
  reached += found.reached;
  truth += found.truth;
  if (seed % 20 === 19)
    console.log(
      `${seed + 1 - from} takes, ${rows} claims (${found.examples[0]?.features.length} features), ${positive} hold; ${((100 * reached) / truth).toFixed(2)} % of ${truth} notes within reach`,
    );
}
closeSync(out);
