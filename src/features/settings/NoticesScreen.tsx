import { Shell } from '../shell/Shell';

/** Third-party notices as they come with the program. */
export function NoticesScreen({ text }: { text: string }) {
  return (
    <Shell place="Settings">
      <article className="mx-4 max-w-[900px] pt-4 pb-10 sm:mx-8">
        {blocksOf(text).map((block, index) => (
          <Block key={index} text={block} />
        ))}
      </article>
    </Shell>
  );
}

const blocksOf = (text: string): string[] => text.split(/\n{2,}/).filter((block) => block.trim() !== '');

function Table({ text }: { text: string }) {
  const [head, , ...rows] = text.split('\n').map((line) => line.split('|').slice(1, -1));
  return (
    <table className="mt-3 block w-full overflow-x-auto text-left leading-6 text-soft">
      <thead className="text-dim">
        <tr>
          {head?.map((cell) => (
            <th key={cell} className="border-b border-line font-normal">
              {cell.trim()}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((cells) => (
          <tr key={cells.join()}>
            {cells.map((cell, index) => (
              <td key={index}>{cell.trim()}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Block({ text }: { text: string }) {
  if (text.startsWith('|')) return <Table text={text} />;
  const heading = /^(#{1,3}) (.*)$/.exec(text);
  if (!heading)
    return (
      <pre className="mt-3 font-[inherit] leading-6 break-words whitespace-pre-wrap text-soft">{text}</pre>
    );
  if (heading[1] === '#') return <h1 className="text-[25px] leading-8 font-[640]">{heading[2]}</h1>;
  return <h2 className="mt-6 text-[19px] leading-7 font-[640]">{heading[2]}</h2>;
}
