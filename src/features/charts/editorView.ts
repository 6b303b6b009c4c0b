import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { EditorState, StateEffect, StateField, type Extension } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  keymap,
  lineNumbers,
  MatchDecorator,
  ViewPlugin,
  type DecorationSet,
  type ViewUpdate,
} from '@codemirror/view';
import { present, type Problem } from '@/core/shared';

/** Shows problems under the words they are about. */
export const showProblems = StateEffect.define<readonly Problem[]>();

const underlines = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = marks.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(showProblems)) next = underline(transaction.state, effect.value);
    return next;
  },
  provide: (field) => EditorView.decorations.from(field),
});

function underline(state: EditorState, problems: readonly Problem[]): DecorationSet {
  const ranges = problems.flatMap((problem) => {
    const word = wordAt(state, problem);
    return word ? [Decoration.mark({ class: 'cm-wrong' }).range(word.from, word.to)] : [];
  });
  return Decoration.set(ranges, true);
}

/** The whole word a problem points into: what its suggestion would replace. */
export function wordAt(state: EditorState, problem: Problem): { from: number; to: number } | null {
  if (problem.line === undefined || problem.line > state.doc.lines) return null;
  const line = state.doc.line(problem.line);
  const column = Math.min((problem.column ?? 1) - 1, Math.max(0, line.length - 1));
  const [before, after] = [
    present(/[^\s|]*$/.exec(line.text.slice(0, column)))[0],
    present(/^[^\s|]*/.exec(line.text.slice(column)))[0],
  ];
  const [from, to] = [line.from + column - before.length, line.from + column + after.length];
  if (to > from) return { from, to };
  if (line.length > 0) return { from: line.from, to: line.to };
  return null;
}

const quiet = new MatchDecorator({
  regexp: /\b(?:title|key|meter|tempo|feel|pickup|reading):|[|:%\]]+|\[[^\]|]*/g,
  decoration: Decoration.mark({ class: 'cm-quiet' }),
});
const quietMarks = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = quiet.createDeco(view);
    }
    update(update: ViewUpdate) {
      this.decorations = quiet.updateDeco(update, this.decorations);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

const look = EditorView.theme({
  '&': { fontSize: '17px', backgroundColor: 'transparent', color: 'var(--ink)' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': {
    fontFamily: "'Atkinson Hyperlegible Mono Variable', 'Idle Accidentals', monospace",
    lineHeight: '32px',
  },
  '.cm-content': { caretColor: 'var(--now)', padding: '0' },
  '.cm-cursor': { borderLeftColor: 'var(--now)', borderLeftWidth: '2px' },
  '.cm-gutters': { backgroundColor: 'transparent', border: 'none', color: 'var(--dim)', fontSize: '14px' },
  '.cm-lineNumbers .cm-gutterElement': { minWidth: '20px', padding: '0 16px 0 0' },
  '.cm-activeLine': { backgroundColor: 'var(--row)' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'var(--line) !important',
  },
  '.cm-quiet': { color: 'var(--dim)' },
  '.cm-wrong': { borderBottom: '3px solid var(--now)', fontWeight: '700' },
});

type Options = {
  parent: HTMLElement;
  text: string;
  nonce: string | undefined;
  onChange: (text: string) => void;
  onAccept: () => boolean;
  onNext: () => boolean;
};

/** The chart's text: line numbers, undo, problems underlined; Tab takes the suggestion where there is one. */
export function chartEditor({ parent, text, nonce, onChange, onAccept, onNext }: Options): EditorView {
  const extensions: Extension[] = [
    lineNumbers(),
    history(),
    underlines,
    quietMarks,
    look,
    EditorView.lineWrapping,
    EditorView.contentAttributes.of({
      'aria-label': 'Chart text',
      spellcheck: 'false',
      autocapitalize: 'off',
      autocorrect: 'off',
    }),
    keymap.of([
      { key: 'Tab', run: onAccept },
      { key: 'F8', run: onNext },
      ...historyKeymap,
      ...defaultKeymap,
    ]),
    EditorView.updateListener.of((update) => {
      if (update.docChanged) onChange(update.state.doc.toString());
    }),
  ];
  if (nonce) extensions.push(EditorView.cspNonce.of(nonce));
  return new EditorView({ parent, state: EditorState.create({ doc: text, extensions }) });
}
