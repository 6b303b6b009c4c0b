'use client';
import { getNonce } from 'get-nonce';
import { useEffect, useRef } from 'react';
import type { EditorView } from '@codemirror/view';
import { chartEditor, showProblems, wordAt } from './editorView';
import { present, type Problem } from '@/core/shared';

/** Puts a whole text in place, as one step that can be undone. */
export type ReplaceText = (text: string) => void;
type Props = {
  text: string;
  problems: readonly Problem[];
  onChange: (text: string) => void;
  replaceRef: { current: ReplaceText | null };
};

/** The text editor, with what is wrong said below it and the way out on a key. */
export function ChartEditor({ text, problems, onChange, replaceRef }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef({ onChange, problems });
  useEffect(() => {
    latest.current = { onChange, problems };
    view.current?.dispatch({ effects: showProblems.of(problems) });
  }, [onChange, problems]);
  useEffect(() => {
    const editor = chartEditor({
      parent: present(place.current),
      text,
      nonce: getNonce(),
      onChange: (next) => latest.current.onChange(next),
      onAccept: () => accept(editor, latest.current.problems),
      onNext: () => toNext(editor, latest.current.problems),
    });
    view.current = editor;
    replaceRef.current = (next) =>
      editor.dispatch({
        changes: { from: 0, to: editor.state.doc.length, insert: next },
        userEvent: 'input.replace',
      });
    editor.dispatch({ effects: showProblems.of(latest.current.problems) });
    return () => {
      replaceRef.current = null;
      editor.destroy();
    };
    // the editor owns its text once it is made: another chart is another editor
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <>
      <div ref={place} className="min-h-[272px]" />
      <Trouble problems={problems} onAccept={() => view.current && accept(view.current, problems)} />
    </>
  );
}

/**
 * Puts the first suggestion that stands for a word in its place. False where there is none: Tab then moves on.
 */
function accept(view: EditorView, problems: readonly Problem[]): boolean {
  const problem = problems.find((one) => isReplacement(one) && wordAt(view.state, one));
  const word = problem ? wordAt(view.state, problem) : null;
  if (!problem || !word) return false;
  view.dispatch({
    changes: { ...word, insert: present(problem.suggestion) },
    selection: { anchor: word.from + present(problem.suggestion).length },
    userEvent: 'input.complete',
  });
  view.focus();
  return true;
}

/** Moves to the next place to fix, round and round. */
function toNext(view: EditorView, problems: readonly Problem[]): boolean {
  const places = problems.flatMap((problem) => wordAt(view.state, problem) ?? []);
  const next = places.find((place) => place.from > view.state.selection.main.from) ?? places[0];
  if (!next) return false;
  view.dispatch({ selection: { anchor: next.from, head: next.to }, scrollIntoView: true });
  view.focus();
  return true;
}

const isReplacement = (problem: Problem): boolean =>
  problem.suggestion !== undefined &&
  ['chord.unknown', 'key.unknown', 'chart.meter', 'chart.tempo', 'chart.pickup', 'chart.no-bars'].includes(
    problem.code,
  );

function Trouble({ problems, onAccept }: { problems: readonly Problem[]; onAccept: () => void }) {
  const [first, ...others] = problems;
  return (
    <div role="status" aria-live="polite" className="mt-4">
      {first && (
        <div className="border-l-[3px] border-now py-0.5 pl-4 text-soft" data-testid="chart-problem">
          <p>
            <b className="text-ink">
              {first.bar === undefined ? '' : `Bar ${first.bar}: `}
              {first.message}
            </b>
          </p>
          <p>
            {first.line === undefined ? '' : `Line ${first.line}, column ${first.column ?? 1}.`}
            {others.length > 0 && ` ${others.length} more below it.`}
          </p>
          {first.suggestion !== undefined &&
            (isReplacement(first) ? (
              <button type="button" className="mt-2 flex items-baseline gap-3" onClick={onAccept}>
                <kbd className="key">Tab</kbd>
                <span className="text-[22px] font-[620] text-ink">{first.suggestion || 'nothing'}</span>
              </button>
            ) : (
              <p className="mt-1">{first.suggestion}</p>
            ))}
        </div>
      )}
    </div>
  );
}
