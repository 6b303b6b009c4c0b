// Reads scores with Verovio, an engraver that is not ours. For each MusicXML file a line of JSON: its notes as MIDI in base64, and
// how many bars and chord symbols were found.
import { readFileSync } from 'node:fs';
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';

const engraver = new VerovioToolkit(await createVerovioModule());
for (const file of process.argv.slice(2)) {
  if (!engraver.loadData(readFileSync(file, 'utf8'))) throw new Error(`${file} could not be read`);
  const mei = engraver.getMEI();
  const count = (element) => mei.split(`<${element} `).length - 1;
  console.log(
    JSON.stringify({ midi: engraver.renderToMIDI(), bars: count('measure'), chords: count('harm') }),
  );
}
