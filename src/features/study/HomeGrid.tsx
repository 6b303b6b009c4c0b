'use client';
import type { GridCell, GridColumn } from '@/core/plan';
import { typeset } from '@/core/music';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { intervalLabel } from '@/ui/intervalLabel';

type Props = {
  grid: readonly GridColumn[];
  home: string;
  /** Bar of the chosen chord, from 1. */
  bar: number;
  /** Absent on paper. */ onPress?: (column: GridColumn, pc: number) => void;
};

/** How a note of the home scale stands over a chord: by word and by look, never by colour alone. */
const ROLES: Readonly<Record<GridCell['role'], { readonly look: string; readonly word: string }>> = {
  'chord-tone': { look: 'bg-(--h0) text-bg font-[640] rounded-full', word: 'chord tone' },
  scale: { look: 'text-ink', word: 'of its scale' },
  avoid: { look: 'text-ink border border-dashed border-dim rounded-full', word: 'rubs by a half step' },
  outside: { look: 'text-dim line-through', word: 'not of its scale' },
};

/** Each note of the home scale against each chord of the form: its function there, and what the scale lacks. */
export function HomeGrid({ grid, home, bar, onPress }: Props) {
  const names = grid[0]?.cells ?? [];
  return (
    <section aria-label="Home scale against the chords">
      <div className="overflow-x-auto">
        <table className="w-full border-collapse text-[17px]">
          <caption className="pb-2 text-left text-[15px] text-soft">
            {typeset(home)} over each chord of the form.{onPress && ' Press a note to hear it there.'}
          </caption>
          <thead>
            <tr className="border-b border-line text-dim">
              <th scope="col" className="py-1 text-left font-normal">
                chord
              </th>
              {names.map(({ name }, index) => (
                <th key={index} scope="col" className="min-w-12 font-[560] text-soft">
                  {typeset(name)}
                </th>
              ))}
              <th scope="col" className="pl-4 text-left font-normal">
                lacks
              </th>
              <th scope="col" className="text-left font-normal">
                bars
              </th>
            </tr>
          </thead>
          <tbody>
            {grid.map((column) => (
              <GridRow
                key={`${column.chord} ${column.degree}`}
                column={column}
                isHere={column.bars.includes(bar)}
                {...(onPress && { onPress })}
              />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3 flex flex-wrap gap-x-6 gap-y-1 text-[15px] text-soft">
        {Object.values(ROLES).map(({ look, word }) => (
          <span key={word} className="flex items-center gap-2">
            <span className={`grid h-6 min-w-8 place-items-center px-1.5 text-sm ${look}`}>3</span> {word}
          </span>
        ))}
      </p>
    </section>
  );
}

type RowProps = { column: GridColumn; isHere: boolean } & Pick<Props, 'onPress'>;

const GridRow = ({ column, isHere, onPress }: RowProps) => (
  <tr className={`border-b border-line ${isHere ? 'bg-row' : ''}`}>
    <th scope="row" className="py-1.5 pr-3 text-left font-[600] whitespace-nowrap">
      <ChordSymbol symbol={column.chord} />{' '}
      <span className="text-[15px] font-normal text-soft">{intervalLabel(column.degree)}</span>
    </th>
    {column.cells.map(({ pc, name, interval, role }) => (
      <td key={pc} className="text-center">
        <button
          type="button"
          onClick={() => onPress?.(column, pc)}
          aria-label={`${typeset(name)} over ${typeset(column.chord)}: ${interval}, ${ROLES[role].word}`}
          className={`inline-grid h-7 min-w-9 place-items-center px-1.5 ${ROLES[role].look}`}
        >
          {intervalLabel(interval)}
        </button>
      </td>
    ))}
    <td className="pl-4 font-[620] text-ink">
      {column.missing.map(({ name }) => typeset(name)).join(' ') || '–'}
    </td>
    <td className="text-[15px] text-dim">{column.bars.join(', ')}</td>
  </tr>
);
