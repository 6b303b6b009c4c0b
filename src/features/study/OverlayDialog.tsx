'use client';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { Dialog } from 'radix-ui';
import { writeBars, type Chart, type Harmony } from '@/core/chart';
import { layOver, overlayOf, substitutesFor, type PlanWords, type Substitute } from '@/core/plan';
import { typeset } from '@/core/music';
import { substituteReason } from '@/presentation';
import { ChordSymbol } from '@/ui/ChordSymbol';

type Props = {
  plan: PlanWords;
  chart: Chart;
  harmony: Harmony;
  /** The chosen chord of the form. */
  index: number;
  onChange: (plan: PlanWords) => void;
  /** Lets a line over these changes be heard, with the band on the written ones. */
  onHear: (overlay: string) => void;
};

const MOST = 9;

/** Changes of one's own to lay over the written ones: from the standard substitutes, or typed as chart text. */
export function OverlayDialog(props: Props) {
  const { plan, chart } = props;
  const [text, setText] = useState(plan.overlay ?? '');
  return (
    <Dialog.Root onOpenChange={(open) => open && setText(plan.overlay ?? writeBars(chart.bars))}>
      <Dialog.Trigger className="underline hover:text-ink">
        {plan.overlay ? 'changes laid over' : 'lay changes over'}
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/70" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 max-h-[94vh] w-[min(980px,calc(100vw-32px))] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-line bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[620]">Changes to lay over these</Dialog.Title>
          <p className="mt-1 text-soft">
            The same bars with the chords you mean to play. The band keeps the written ones.
          </p>
          <Overlay {...props} text={text} setText={setText} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

type OverlayProps = Props & { text: string; setText: (text: string) => void };

function Overlay({ plan, chart, harmony, index, onChange, onHear, text, setText }: OverlayProps) {
  const offered = useMemo(() => substitutesFor(harmony, index).slice(0, MOST), [harmony, index]);
  const read = text.trim() === '' ? null : overlayOf(chart, text);
  const wrong = read && !read.ok ? read.problems[0] : null;
  const insert = ({ chords }: Substitute) => {
    const laid = layOver(chart, wrong ? '' : text, index, chords);
    if (laid.ok) setText(laid.value);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const substitute = offered[Number(event.key) - 1];
    if (!substitute || event.target instanceof HTMLTextAreaElement) return;
    event.preventDefault();
    insert(substitute);
  };
  const { overlay: _overlay, ...rest } = plan;
  return (
    <div className="mt-3 grid gap-6 md:grid-cols-2" onKeyDown={onKeyDown}>
      <Offers offered={offered} symbol={harmony.readings[index]?.chord.symbol} onInsert={insert} />
      <div>
        <textarea
          className="field h-52 w-full font-mono text-base leading-7"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-label="Overlay as chart text"
          spellCheck={false}
        />
        <p role="status" className="mt-1 min-h-6 text-[15px] text-ink">
          {wrong &&
            `${wrong.bar === undefined ? '' : `Bar ${wrong.bar}: `}${wrong.message} ${wrong.suggestion ?? ''}`}
        </p>
        <div className="mt-3 flex justify-end gap-4">
          <button
            type="button"
            className="quiet mr-auto"
            disabled={wrong !== null}
            onClick={() => onHear(text)}
          >
            Hear a line over them
          </button>
          <Dialog.Close className="quiet" onClick={() => onChange(rest)}>
            None
          </Dialog.Close>
          <Dialog.Close
            className="go"
            disabled={wrong !== null}
            onClick={() => onChange(read?.ok ? { ...plan, overlay: text } : rest)}
          >
            Use these chords
          </Dialog.Close>
        </div>
      </div>
    </div>
  );
}

type OffersProps = {
  offered: readonly Substitute[];
  symbol: string | undefined;
  onInsert: (substitute: Substitute) => void;
};

/** What may stand over the chosen chord, each with its reason; its number lays it over. */
const Offers = ({ offered, symbol, onInsert }: OffersProps) => (
  <section aria-label="Substitutes">
    <h3 className="heading border-b border-line">Over {symbol ? typeset(symbol) : 'N.C.'}</h3>
    <ol>
      {offered.map((substitute, place) => (
        <li key={substitute.kind} className="border-b border-line">
          <button
            type="button"
            autoFocus={place === 0}
            className="grid w-full grid-cols-[28px_minmax(0,1fr)] gap-x-2 py-1.5 text-left hover:bg-row"
            onClick={() => onInsert(substitute)}
          >
            <kbd className="key self-start">{place + 1}</kbd>
            <span>
              <b className="flex gap-3 font-[620] text-ink">
                {substitute.chords.map((chord, number) => (
                  <ChordSymbol key={number} symbol={chord} />
                ))}
              </b>
              <span className="block text-[15px] leading-5 text-soft">
                {substituteReason(substitute.kind)}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ol>
  </section>
);
