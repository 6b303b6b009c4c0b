import { ChordSymbol } from './ChordSymbol';

/** A chord in a sentence: a root with a figure after it. A bare letter is a note's name and stays as it is. */
const CHORD =
  /([A-G][♭♯]{0,2}(?:m|maj|△|ø|°|sus|\+)?\d[^\s,.;:]*|[A-G][♭♯]{0,2}(?:maj7|m(?=[\s,.;])|ø|°)[^\s,.;:]*)/u;

/** A sentence with its chord symbols typeset. */
export function ChordWords({ text }: { text: string }) {
  return (
    <>
      {text
        .split(CHORD)
        .map((piece, index) => (index % 2 ? <ChordSymbol key={index} symbol={piece} /> : piece))}
    </>
  );
}
