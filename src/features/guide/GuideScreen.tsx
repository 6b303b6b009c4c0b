'use client';
import { useMemo, useRef, useState } from 'react';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { sectionsFound } from './guideSearch';

type Section = {
  readonly id: string;
  readonly guide: string;
  readonly title: string;
  readonly html: string;
  readonly text: string;
};

/** The guides for players, found by a word. */
export function GuideScreen({ sections }: { sections: readonly Section[] }) {
  const [query, setQuery] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const found = useMemo(() => sectionsFound(sections, query), [sections, query]);
  useCommands({ 'guide.find': () => field.current?.focus() });
  return (
    <Shell
      place="Guide"
      footer={
        <>
          <span>
            <KeyOf command="guide.find" /> find
          </span>
          <span>
            <KeyOf command="app.words" /> what a word means
          </span>
          <span>
            <KeyOf command="app.keys" /> all keys
          </span>
        </>
      }
    >
      <div className="mx-4 grid gap-x-12 gap-y-4 pt-3 pb-12 sm:mx-8 lg:grid-cols-[280px_minmax(0,76ch)]">
        <div className="flex flex-col gap-4 lg:sticky lg:top-4 lg:max-h-[calc(100dvh-90px)] lg:self-start lg:overflow-y-auto">
          <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight">Guide</h1>
          <input
            ref={field}
            type="search"
            className="field w-full"
            aria-label="Find in the guide"
            placeholder="Find a word"
            value={query}
            onChange={({ target }) => setQuery(target.value)}
          />
          <p role="status" className="text-[15px] text-dim">
            {countWords(found.length, query)}
          </p>
          <Contents sections={found} />
        </div>
        <div className="min-w-0">
          {found.map((section, index) => (
            <GuidePart
              key={section.id}
              section={section}
              isFirst={index === 0}
              namesGuide={section.guide !== found[index - 1]?.guide}
            />
          ))}
        </div>
      </div>
    </Shell>
  );
}

function countWords(count: number, query: string): string {
  if (query.trim() === '') return '';
  if (count === 0) return 'Nothing holds these words. Try fewer or shorter ones.';
  return count === 1 ? 'One section holds them.' : `${count} sections hold them.`;
}

/** The titles, under the name of their guide. */
function Contents({ sections }: { sections: readonly Section[] }) {
  const guides = [...new Set(sections.map(({ guide }) => guide))];
  return (
    <nav aria-label="Sections" className="hidden flex-col gap-4 lg:flex">
      {guides.map((guide) => (
        <div key={guide}>
          <p className="heading">{guide}</p>
          <ul>
            {sections
              .filter((section) => section.guide === guide)
              .map(({ id, title }) => (
                <li key={id}>
                  <a href={`#${id}`} className="block py-0.5 text-soft hover:text-ink">
                    {title}
                  </a>
                </li>
              ))}
          </ul>
        </div>
      ))}
    </nav>
  );
}

type PartProps = { section: Section; isFirst: boolean; namesGuide: boolean };

const GuidePart = ({ section: { id, guide, title, html }, isFirst, namesGuide }: PartProps) => (
  <section
    id={id}
    aria-labelledby={`${id}-title`}
    className={`scroll-mt-4 ${isFirst ? 'lg:pt-1' : 'mt-8 border-t border-line pt-6'}`}
  >
    {namesGuide && <p className="heading">{guide}</p>}
    <h2 id={`${id}-title`} className="text-[26px] leading-8 font-[620]">
      {title}
    </h2>
    {/* written by us, in docs: no words of a player come into it */}
    <div className="guide mt-3 text-soft" dangerouslySetInnerHTML={{ __html: html }} />
  </section>
);
