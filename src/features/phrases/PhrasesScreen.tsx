'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Habit, StoredPhrase } from '@/server/phrases';
import { ChordWords } from '@/ui/ChordWords';
import { notify } from '@/ui/toast/toasts';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { HearButton } from './Hear';
import { NewPhrase } from './NewPhrase';
import { changePhrase } from './phraseServer';
import { chordsText, formulaText } from './phraseView';

type Props = { phrases: readonly StoredPhrase[]; habits: readonly Habit[] };

/** The player's vocabulary: phrases kept from takes, typed, or made out of others. */
export function PhrasesScreen({ phrases, habits }: Props) {
  const [wanted, setWanted] = useState('');
  const shown = phrases.filter(({ name, tags }) =>
    [name, ...tags].some((word) => word.toLowerCase().includes(wanted.trim().toLowerCase())),
  );
  return (
    <Shell
      place="Phrases"
      footer={
        <span>
          {phrases.length === 0
            ? 'In a review, select a phrase and press K to keep it.'
            : `${phrases.length} ${phrases.length === 1 ? 'phrase' : 'phrases'} kept`}
        </span>
      }
    >
      <div className="mx-4 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 pt-4 pb-10 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,460px)]">
        <section aria-label="Your phrases" className="min-w-0">
          <div className="flex flex-wrap items-baseline justify-between gap-3">
            <h1 className="text-[25px] leading-8 font-[640]">Your phrases</h1>
            {phrases.length > 6 && (
              <input
                className="field w-52 !py-1"
                aria-label="Find by name or tag"
                placeholder="name or tag"
                value={wanted}
                onChange={(event) => setWanted(event.target.value)}
              />
            )}
          </div>
          {phrases.length === 0 && (
            <p className="mt-3 text-lg leading-7 text-soft">
              None yet. Select a phrase in a review and press K, or write one here: then move it over any
              form, vary it, and see where you play it again.
            </p>
          )}
          <List phrases={shown} />
        </section>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <NewPhrase />
          <Habits habits={habits} />
        </div>
      </div>
    </Shell>
  );
}

function List({ phrases }: { phrases: readonly StoredPhrase[] }) {
  const router = useRouter();
  const hearing = useHearing();
  const remove = ({ id, name }: StoredPhrase) =>
    void changePhrase(id, { removed: true })
      .then(() => {
        notify(`“${name}” is removed.`, {
          label: 'Bring it back',
          run: () => void changePhrase(id, { removed: false }).then(() => router.refresh()),
        });
        router.refresh();
      })
      .catch(() => notify('The server does not answer. The phrase is still there.'));
  return (
    <ul className="mt-2">
      {phrases.map((one) => (
        <li
          key={one.id}
          className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b border-line py-2"
        >
          <Link href={`/phrases/${one.id}`} className="group min-w-0">
            <b className="text-[19px] leading-7 group-hover:underline">{one.name}</b>
            <span className="ml-3 text-dim">{one.tags.join(', ')}</span>
            <span className="block truncate text-soft">
              <ChordWords text={chordsText(one.phrase)} /> · {formulaText(one.phrase)}
            </span>
          </Link>
          <span className="flex gap-3 text-[15px]">
            <HearButton hearing={hearing} line={{ id: one.id, ...one.phrase }} name={one.name} />
            <button
              type="button"
              className="quiet"
              aria-label={`Remove ${one.name}`}
              onClick={() => remove(one)}
            >
              remove
            </button>
          </span>
        </li>
      ))}
    </ul>
  );
}

/** What comes back over several takes without being kept: the player's habits. */
function Habits({ habits }: { habits: readonly Habit[] }) {
  if (habits.length === 0) return null;
  return (
    <section aria-label="What you often play">
      <h2 className="heading">What you often play</h2>
      <p className="mt-1 text-[15px] leading-6 text-dim">
        The same intervals in the same rhythm, in several takes. Keep one to vary it, or leave it out for a
        while.
      </p>
      <ul className="mt-1">
        {habits.map(({ take, phrase, count, takes }) => (
          <li key={`${take.id} ${phrase}`} className="border-b border-line py-1.5">
            <Link href={`/takes/${take.id}?at=phrase-${phrase + 1}`} className="hover:underline">
              {count} times in {takes} takes
            </Link>
            <span className="ml-3 text-dim">
              last in {take.title}, take {take.number}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
