import { expect, test } from '@jest/globals';
import { MUSICAL_TERMS, termsIn } from '@/presentation';
import { interfaceTexts } from '../support/interfaceWords';

// Words of the trade that a newcomer cannot be expected to know: where a screen says one, it is explained.
const TRADE =
  /\b(?:chord tones?|guide tones?|home scales?|pentatonics?|arpeggios?|enclosures?|approach(?:es)?|landings?|targets?|chorus(?:es)?|motifs?|upbeats?|offbeats?|swing|thread|rubs?|lacks|substitutes?|superimposed|step out|ii–V|latency|phrases?|thirds?|sevenths?|tension|lean)\b/gi;

test('every term of the trade that a screen says is explained', () => {
  const said = new Set(
    interfaceTexts()
      .filter((text) => text.includes(' '))
      .flatMap((text) => text.match(TRADE) ?? [])
      .map((word) => word.toLowerCase()),
  );
  expect(said.size).toBeGreaterThan(20);
  expect([...said].filter((word) => termsIn(word).length === 0)).toEqual([]);
});

test('every term that is explained stands on a screen', () => {
  const all = interfaceTexts().join(' | ');
  expect(MUSICAL_TERMS.filter((term) => !termsIn(all).includes(term)).map(({ name }) => name)).toEqual([]);
});

test('each says what it is and why it matters in short sentences, and its example can be played', () => {
  for (const { name, what, why, example } of MUSICAL_TERMS) {
    for (const text of [what, why])
      for (const sentence of text.split(/(?<=[.?!]) /))
        expect([name, sentence.split(' ').length <= 20, /[.?!]$/.test(sentence)]).toEqual([name, true, true]);
    for (const [onset, duration, midi] of example ?? [])
      expect([name, onset >= 0, duration > 0, midi >= 40 && midi <= 86]).toEqual([name, true, true, true]);
  }
});

test('a term is found as a word of its own', () => {
  const names = (text: string) => termsIn(text).map(({ name }) => name);
  expect(names('Enclose the third')).toEqual(['Third and seventh', 'Enclosure']);
  expect(names('A platform, unchanged, is landlocked')).toEqual([]);
  expect(names('No motif.')).toEqual(['Motif']);
});
