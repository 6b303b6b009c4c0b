'use client';
import { useState, type ReactNode } from 'react';

export type BoardTable = {
  readonly caption: string;
  readonly head: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
};
type Props = { name: string; facts: ReactNode; table: BoardTable; children: ReactNode; className?: string };

/** A board: a picture and, one press away and always for a reader of screens, the same as a table. */
export function Board({ name, facts, table, children, className = '' }: Props) {
  const [asTable, setAsTable] = useState(false);
  return (
    <section aria-label={name} className={`min-w-0 ${className}`}>
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4">
        <h2 className="text-[15px] leading-[22px] text-dim">
          <b className="mr-3 text-base text-ink">{name}</b>
          {facts}
        </h2>
        <button
          type="button"
          aria-pressed={asTable}
          aria-label={`${name} ${asTable ? 'as a picture' : 'as a table'}`}
          className="no-print text-sm text-dim hover:text-ink"
          onClick={() => setAsTable((now) => !now)}
        >
          {asTable ? 'picture' : 'table'}
        </button>
      </div>
      {!asTable && children}
      <div className={asTable ? 'mt-2 overflow-x-auto' : 'sr-only'}>
        <table className="w-full text-left text-[15px]">
          <caption className="sr-only">{table.caption}</caption>
          <thead>
            <tr className="border-b border-line text-dim">
              {table.head.map((cell, index) => (
                <th
                  key={index}
                  scope="col"
                  className={index > 0 ? 'py-1 text-right font-normal' : 'py-1 font-normal'}
                >
                  {cell}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, place) => (
              <tr key={place} className="border-b border-line">
                {row.map((cell, index) =>
                  index === 0 ? (
                    <th key={index} scope="row" className="py-1 font-[560]">
                      {cell}
                    </th>
                  ) : (
                    <td key={index} className="py-1 text-right">
                      {cell}
                    </td>
                  ),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
