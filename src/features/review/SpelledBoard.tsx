import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { leadsInto, levelsOf, spelledOver, type FindingsRequest } from '@/core/findings';
import { typeset } from '@/core/music';
import { leadWords, levelWords, spelledWords } from '@/presentation';
import { ChordWords } from '@/ui/ChordWords';
import { intervalLabel } from '@/ui/intervalLabel';

/** What the line spelled over each chord: its arpeggios by name, bar by bar on a vamp. */
export function SpelledBoard({ report, timeline }: { report: Report; timeline: Timeline }) {
  const rows = spelledOver(report, timeline);
  return (
    <section aria-label="What you spelled">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">What you spelled over each chord</b>
        {rows.length === 0 ? 'no arpeggio of three notes or more' : 'arpeggios, named from the chord'}
      </h2>
      {rows.length > 0 && (
        <table className="mt-1 w-full text-left text-[15px]">
          <thead className="sr-only">
            <tr>
              <th scope="col">Chord</th>
              <th scope="col">Spelled</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ chord, bar, shapes }) => (
              <tr key={`${chord} ${bar}`} className="border-t border-line align-top">
                <th scope="row" className="w-28 py-1 text-lg font-[640]">
                  <ChordWords text={typeset(chord)} />
                  {bar !== null && <span className="ml-2 text-sm font-normal text-dim">bar {bar}</span>}
                </th>
                <td className="py-1">
                  <ul>
                    {shapes.map((shape) => (
                      <li key={`${shape.name} ${shape.relation}`}>{spelledWords(shape)}</li>
                    ))}
                  </ul>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

const MOST_LEADS = 12;

/** How the tones of each chord were led into, inside the bar as at changes. */
export function LeadInBoard({ report }: { report: Report }) {
  const rows = leadsInto(report).slice(0, MOST_LEADS);
  return (
    <section aria-label="Led into">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Led into, anywhere in the bar</b>
        {rows.length === 0 ? 'no chord tone was led into' : 'the tone, where it came from, how often'}
      </h2>
      <table className="mt-1 w-full text-left text-[15px]">
        <thead className="sr-only">
          <tr>
            <th scope="col">Chord</th>
            <th scope="col">Tone</th>
            <th scope="col">From</th>
            <th scope="col">Times</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.chord} ${row.into} ${row.from} ${row.side}`} className="border-t border-line">
              <th scope="row" className="py-1 font-[640]">
                <ChordWords text={typeset(row.chord)} />
              </th>
              <td>{intervalLabel(row.into)}</td>
              <td>{leadWords(row)}</td>
              <td className="text-right text-lg font-[640]">{row.count}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Which of the four levels each chorus was played at, and whether it was the one meant. */
export function LevelsBoard({ request }: { request: FindingsRequest }) {
  return (
    <section aria-label="Levels">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">How you played each chorus</b>
        against what its plan meant
      </h2>
      <ol className="mt-1 text-[15px]">
        {levelsOf(request).map((one) => (
          <li key={one.chorus} className="grid grid-cols-[28px_1fr] border-t border-line py-1">
            <b className="text-lg">{one.chorus}</b>
            <span>{levelWords(one)}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}
