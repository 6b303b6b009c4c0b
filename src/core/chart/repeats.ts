import type { Bar, WrittenBar } from './chart';
import { type Problem, defined } from '../shared';

/**
 * Writes repeats out: `|: a b |1. c :|2. d` becomes a b c a b d.
 * An unclosed `|:` and a `:|` that closes nothing are problems with their place.
 */
export function unfold(written: readonly WrittenBar[]): { bars: Bar[]; problems: Problem[] } {
  const bars: Bar[] = [];
  const problems: Problem[] = [];
  let index = 0;
  while (index < written.length) {
    const bar = defined(written[index]);
    if (!bar.opens) {
      if (bar.closes) problems.push(stray(bar, index));
      else if (bar.ending !== null) problems.push(strayEnding(bar, index));
      bars.push(plain(bar));
      index++;
      continue;
    }
    const block = blockFrom(written, index);
    if (!block) {
      problems.push(unclosed(bar, index));
      bars.push(...written.slice(index).map(plain));
      break;
    }
    bars.push(...playBlock(block));
    index += block.length;
  }
  return { bars, problems };
}

/** From `|:` through its last ending; null where no `:|` follows. */
function blockFrom(written: readonly WrittenBar[], from: number): readonly WrittenBar[] | null {
  let close = -1;
  for (let index = from; index < written.length; index++) {
    if (index > from && defined(written[index]).opens) break;
    if (!defined(written[index]).closes) continue;
    close = index;
    // a further ending belongs to the block; it ends with its own `:|`, or is one last stretch up to the
    // next section or line of bars
    if (written[index + 1]?.ending == null) break;
  }
  if (close < 0) return null;
  let end = close + 1;
  if (written[end]?.ending != null) {
    const { line, section } = defined(written[end]);
    while (
      end < written.length &&
      !defined(written[end]).opens &&
      defined(written[end]).line === line &&
      defined(written[end]).section === section
    )
      end++;
  }
  return written.slice(from, end);
}

function playBlock(block: readonly WrittenBar[]): Bar[] {
  const firstEnding = block.findIndex((bar) => bar.ending !== null);
  if (firstEnding < 0) return [...block, ...block].map(plain);
  const common = block.slice(0, firstEnding);
  const endings: WrittenBar[][] = [];
  for (const bar of block.slice(firstEnding)) {
    if (bar.ending !== null) endings.push([]);
    defined(endings[endings.length - 1]).push(bar);
  }
  return endings.flatMap((ending) => [...common, ...ending]).map(plain);
}

const plain = ({ opens: _opens, closes: _closes, ending: _ending, ...bar }: WrittenBar): Bar => bar;

const unclosed = (bar: WrittenBar, index: number): Problem => ({
  code: 'chart.repeat-unclosed',
  line: bar.line,
  column: bar.column,
  length: 1,
  bar: index + 1,
  message: `The repeat that opens at bar ${index + 1} is never closed.`,
  suggestion: 'End its last bar with :|',
});

const stray = (bar: WrittenBar, index: number): Problem => ({
  code: 'chart.repeat-unopened',
  line: bar.line,
  column: bar.column,
  length: 1,
  bar: index + 1,
  message: `Bar ${index + 1} closes a repeat that was never opened.`,
  suggestion: 'Start the repeat with |:',
});

const strayEnding = (bar: WrittenBar, index: number): Problem => ({
  code: 'chart.ending-stray',
  line: bar.line,
  column: bar.column,
  length: 1,
  bar: index + 1,
  message: `Bar ${index + 1} is ending ${bar.ending} of a repeat that was never opened.`,
  suggestion: 'Start the repeat with |: and close its first ending with :|',
});
