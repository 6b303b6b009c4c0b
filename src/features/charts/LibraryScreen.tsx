'use client';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import type { LibraryEntry } from './ChartFrame';
import { NEW_CHART } from './newChart';
import { useLibraryModel, type LibraryModel } from './useLibraryModel';
import { HEAR_WORDS, OwnCharts, Forms, ChosenForm } from './FormsOfLibrary';

/** What to play over: the player's own charts, and forms to start from. */
export function LibraryScreen({ own }: { own: readonly LibraryEntry[] }) {
  const model = useLibraryModel();
  const { chosen, chart, create, bring, listen, step } = model;
  useCommands({
    'library.next': () => step(1),
    'library.previous': () => step(-1),
    'library.hear': { label: `Hear ${chart.title}`, run: listen },
    'library.start': { label: `Start from ${chart.title}`, run: () => void create(chosen.text) },
    'library.create': () => void create(NEW_CHART),
  });
  return (
    <Shell place="Charts" footer={<Footer model={model} />}>
      <div
        className="mx-4 grid grow gap-x-10 gap-y-8 pt-3 pb-6 sm:mx-8 lg:grid-cols-[232px_416px_minmax(0,1fr)]"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void bring(event.dataTransfer.files[0]);
        }}
      >
        <OwnCharts own={own} model={model} />
        <Forms model={model} />
        <ChosenForm model={model} />
      </div>
    </Shell>
  );
}

function Footer({ model: { chosen, chart, hearing, trouble, create, listen } }: { model: LibraryModel }) {
  return (
    <>
      <span>
        <KeyOf command="library.previous" /> <KeyOf command="library.next" /> form
      </span>
      <button type="button" className="hover:text-ink" onClick={listen}>
        <KeyOf command="library.hear" /> {HEAR_WORDS[hearing.phase]}
      </button>
      <span role="alert" className="text-ink">
        {trouble ?? ''}
      </span>
      <button type="button" className="go ml-auto text-base" onClick={() => void create(chosen.text)}>
        Start from {chart.title}
      </button>
      <KeyOf command="library.start" className="hidden sm:inline-block" />
    </>
  );
}
