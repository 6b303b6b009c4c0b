// Reads scores with Verovio, an engraver that is not ours: for each MusicXML file its notes as MIDI, base64, a line each.
import { readFileSync } from 'node:fs';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';

const engraver = new VerovioToolkit(await createVerovioModule());
for (const file of process.argv.slice(2)) {
  if (!engraver.loadData(readFileSync(file, 'utf8'))) throw new Error(`${file} could not be read`);
  console.log(engraver.renderToMIDI());
}
