'use client';
import { useState } from 'react';
import { Dialog } from 'radix-ui';
import type { Chart } from '@/core/chart';
import { overlayOf, type PlanWords } from '@/core/plan';
import { elementAt } from '@/core/shared';

/** Changes of one's own to lay over the written ones: typed as chart text over the same bars. */
export function OverlayDialog({
  plan,
  chart,
  onChange,
}: {
  plan: PlanWords;
  chart: Chart;
  onChange: (plan: PlanWords) => void;
}) {
  const [text, setText] = useState(plan.overlay ?? '');
  const read = text.trim() === '' ? null : overlayOf(chart, text);
  const wrong = read && !read.ok ? read.problems[0] : null;
  const lay = () => {
    const { overlay: _overlay, ...rest } = plan;
    onChange(read?.ok ? { ...plan, overlay: text } : rest);
  };
  return (
    <Dialog.Root onOpenChange={(open) => open && setText(plan.overlay ?? written(chart))}>
      <Dialog.Trigger className="underline hover:text-ink">
        {plan.overlay ? 'changes laid over' : 'lay changes over'}
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/70" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 w-[min(620px,calc(100vw-32px))] -translate-x-1/2 -translate-y-1/2 border border-line bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[620]">Changes to lay over these</Dialog.Title>
          <p className="mt-1 text-soft">
            The same bars with the chords you mean to play. The band keeps the written ones.
          </p>
          <textarea
            className="field mt-3 h-48 w-full font-mono text-base leading-7"
            value={text}
            onChange={(event) => setText(event.target.value)}
            aria-label="Overlay as chart text"
            spellCheck={false}
          />
          <p role="status" className="mt-1 min-h-6 text-[15px] text-ink">
            {wrong && (
              <>
                {wrong.bar === undefined ? '' : `Bar ${wrong.bar}: `}
                {wrong.message} {wrong.suggestion}
              </>
            )}
          </p>
          <div className="mt-3 flex justify-end gap-4">
            <Dialog.Close
              className="quiet"
              onClick={() => {
                const { overlay: _overlay, ...rest } = plan;
                onChange(rest);
              }}
            >
              None
            </Dialog.Close>
            <Dialog.Close className="go" disabled={wrong !== null} onClick={lay}>
              Lay them over
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The written bars, as a start: four a line, repeats written out. */
function written(chart: Chart): string {
  const bars = chart.bars.map((bar) => {
    const even = bar.cells.every((cell) => cell.beats.equals(elementAt(bar.cells, 0).beats));
    return bar.cells
      .map((cell) => (cell.chord?.symbol ?? 'N.C.') + (even ? '' : ' .'.repeat(cell.beats.valueOf() - 1)))
      .join(' ');
  });
  const lines: string[] = [];
  for (let first = 0; first < bars.length; first += 4)
    lines.push(`| ${bars.slice(first, first + 4).join(' | ')} |`);
  return lines.join('\n');
}
