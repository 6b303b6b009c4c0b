'use client';
import Link from 'next/link';
import { Dialog } from 'radix-ui';
import type { PlanWords } from '@/core/plan';
import { ChordWords } from '@/ui/ChordWords';
import { ToggleRow } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import type { CommandId } from '../shell/commands/catalogue';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useNarrow } from '../shell/useNarrow';
import { ChordView } from './ChordView';
import { GuitarDialog } from './GuitarDialog';
import { PlaceView, placeWords } from './PlaceView';
import { studyCommands } from './studyCommands';
import { StudyLegend } from './StudyLegend';
import { VIEW_NAMES, VIEWS, type StudyPlace, type StudyViewName } from './studyState';
import { useStudyModel, type StudyModel } from './useStudyModel';
import { Footer } from './StudyFooter';

export type { StudyPlace, StudyViewName } from './studyState';
type Props = { chart: { id: string; text: string }; plan: PlanWords; place: StudyPlace };

const VIEW_COMMANDS: Readonly<Record<StudyViewName, CommandId>> = {
  thread: 'study.viewThread',
  place: 'study.viewPlace',
  shapes: 'study.viewShapes',
  grid: 'study.viewGrid',
};

/**
 * Read before you play: the form, what each chord asks for by the chosen school, and where it lies on the
 * neck.
 */
export function StudyScreen({ chart, plan, place }: Props) {
  const model = useStudyModel(chart, plan, place);
  useCommands(studyCommands(model));
  const isNarrow = useNarrow();
  const { study, state, guitar, instrument, index, dispatch, hands, stops } = model;
  const { view } = state;
  const say = view === 'place' ? placeWords(study, stops, hands) : study.say;
  return (
    <Shell place="Study" footer={<Footer model={model} />}>
      <div className="mx-4 flex grow flex-col sm:mx-8">
        <Views model={model} />
        <div className="flex items-start justify-between gap-6">
          <h1 className="text-[20px] leading-7 tracking-tight text-soft sm:text-[25px] sm:leading-8">
            <ChordWords text={say[0]} />{' '}
            <b className="block font-[620] text-ink">
              <ChordWords text={say[1]} />
            </b>
          </h1>
          {(view === 'thread' || view === 'place') && <StudyLegend place={view === 'place'} />}
        </div>
        {view === 'place' ? (
          <div className="pt-4 pb-6">
            <PlaceView
              study={study}
              hands={hands}
              instrument={instrument}
              leftHanded={guitar.leftHanded}
              selected={index}
              barsARow={isNarrow ? 1 : 4}
              onSelect={(chosen) => dispatch({ type: 'select', index: chosen })}
            />
          </div>
        ) : (
          <ChordView model={model} barsARow={isNarrow ? 2 : 4} />
        )}
      </div>
    </Shell>
  );
}

/** What the chart is, and the ways to look at it. */
function Views({ model: { study, state, dispatch, guitar, chartId, plan } }: { model: StudyModel }) {
  const query = new URLSearchParams({ plan: JSON.stringify(plan), position: String(state.position) });
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 pt-1 text-sm leading-7 text-dim">
      {study.meta.map((word) => (
        <span key={word}>{word}</span>
      ))}
      <nav aria-label="Views" className="flex gap-4 sm:ml-auto">
        <ToggleRow
          label="Views"
          value={state.view}
          onChange={(view) => dispatch({ type: 'view', view })}
          choices={VIEW_NAMES.map((name) => [
            name,
            <>
              {VIEWS[name]} <KeyOf command={VIEW_COMMANDS[name]} className="hidden sm:inline-block" />
            </>,
          ])}
        />
        <Dialog.Root>
          <Dialog.Trigger className="text-soft hover:text-ink">Your guitar</Dialog.Trigger>
          <GuitarDialog guitar={guitar} />
        </Dialog.Root>
        <Link href={`/study/${chartId}/sheet?${query.toString()}`} className="text-soft hover:text-ink">
          Print sheet
        </Link>
      </nav>
    </div>
  );
}
