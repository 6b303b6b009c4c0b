import type { ReactNode } from 'react';
import { togetherOf, type ChangeReport, type Report } from '@/core/analyse';
import { intervalWord, typeset } from '@/core/music';
import { elementAt, present } from '@/core/shared';
import { togetherWords } from '@/presentation';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { intervalLabel } from '@/ui/intervalLabel';
import { noteNameIn } from './noteNames';
import { OneNoteFix } from './OneNoteFix';
import type { FixAsked } from './places';
import { noteWords } from './reviewWords';
import { beatsWord, figureName, ruleOf, whyOf } from './rules';
import type { SelectionKind } from './selection';

export type BodyProps = { report: Report; index: number; onFix: (fix: FixAsked) => void };
type Fact = readonly [name: string, words: string];

/** What is said of a selection, by its kind. */
export const BODIES: Readonly<Record<SelectionKind, (props: BodyProps) => ReactNode>> = {
  note: NoteBody,
  change: ChangeBody,
  figure: FigureBody,
  phrase: PhraseBody,
  chorus: ChorusBody,
};

const round = (value: number): number => Math.round(value * 10) / 10;

const Title = ({ children }: { children: ReactNode }) => (
  <p className="mt-2.5 text-[36px] leading-[44px] font-[640]">{children}</p>
);

function Facts({ facts }: { facts: readonly Fact[] }) {
  return (
    <dl className="mt-1 text-[15px] leading-[21px]">
      {facts
        .filter(([, words]) => words)
        .map(([name, words]) => (
          <div key={name}>
            <dt className="mt-2 text-sm font-[560] text-dim">{name}</dt>
            <dd>
              <ChordWords text={words} />
            </dd>
          </div>
        ))}
    </dl>
  );
}

function NoteBody({ report, index, onFix }: BodyProps) {
  const note = elementAt(report.notes, index);
  const words = noteWords(report, index);
  const change = report.changes.find(({ landing }) => landing.noteIndex === index);
  return (
    <>
      <p className="mt-2.5 flex items-baseline gap-4">
        <span className="text-[64px] leading-[64px] font-[640]">{noteNameIn(report, index)}</span>
        {note.chord && (
          <span className="text-xl font-[640]">
            {intervalLabel(note.interval)} of <ChordSymbol symbol={note.chord} />
          </span>
        )}
      </p>
      <Facts
        facts={[
          ['What it is', words.is],
          ['Struck together', togetherWords(togetherOf(report, note.event))],
          ['What it did', words.did],
          ['Why it matters', whyOf(report, index)],
          ['By the rule', ruleOf(note)],
        ]}
      />
      {change?.fix && <OneNoteFix report={report} fix={change.fix} onFix={onFix} />}
    </>
  );
}

const TIMINGS = {
  on: 'on the change',
  early: 'early',
  held: 'held over from before',
  late: 'late',
  none: '',
} as const;
const VERDICTS = {
  target: 'A target of the plan: met.',
  'chord-tone': 'Another chord tone.',
  colour: 'A colour: not met.',
  scale: 'A scale tone: not met.',
  outside: 'Outside: not met.',
  none: '',
} as const;
const WAYS_IN = {
  common: 'by the same note',
  step: 'by step',
  skip: 'by a skip',
  leap: 'by a leap',
  fresh: 'after a rest',
} as const;
/** A line that turns this near to the change turns with it, in beats. */
const WITH_CHANGE = 0.25;

function landingWords(report: Report, { landing }: ChangeReport): string {
  if (landing.noteIndex === null)
    return landing.rest ? 'At rest: nothing sounded near it, so it is not counted.' : 'Nothing landed on it.';
  const tone = intervalWord(landing.interval ?? '');
  return `${noteNameIn(report, landing.noteIndex)}, the ${tone}, ${TIMINGS[landing.timing]}.`;
}

function resolutionWords(report: Report, { landing }: ChangeReport): string {
  if (landing.resolutionIndex === undefined) return '';
  const tone = intervalWord(present(report.notes[landing.resolutionIndex]).interval ?? '');
  return `the ${tone}, ${beatsWord(landing.resolvedAfterBeats ?? 0)} after the change`;
}

function turnWords({ turnedAtBeat, beat }: ChangeReport): string {
  if (turnedAtBeat === undefined) return '';
  const away = turnedAtBeat - beat;
  if (Math.abs(away) < WITH_CHANGE) return 'With the change.';
  return `${beatsWord(Math.abs(away))} ${away > 0 ? 'after' : 'before'} it.`;
}

function ChangeBody({ report, index, onFix }: BodyProps) {
  const change = elementAt(report.changes, index);
  const { landing, connection, fix } = change;
  return (
    <>
      <p className="mt-2.5 text-[40px] leading-[48px] font-[640]">
        <span className="text-[26px] text-soft">
          <ChordSymbol symbol={change.from} /> to{' '}
        </span>
        <ChordSymbol symbol={change.to} />
      </p>
      <Facts
        facts={[
          ['Landing', landingWords(report, change)],
          ['Verdict', VERDICTS[landing.verdict]],
          ['Then', resolutionWords(report, change)],
          ['Way in', connection.kind === null ? '' : WAYS_IN[connection.kind]],
          ['Where the line turned', turnWords(change)],
          ['Why it matters', landing.noteIndex === null ? '' : whyOf(report, landing.noteIndex)],
        ]}
      />
      {fix && <OneNoteFix report={report} fix={fix} onFix={onFix} />}
    </>
  );
}

function FigureBody({ report, index }: BodyProps) {
  const { kind, noteIndices, targetIndex } = elementAt(report.figures, index);
  const target = elementAt(report.notes, targetIndex);
  return (
    <>
      <Title>{figureName(kind)}</Title>
      <Facts
        facts={[
          ['Notes', [...noteIndices, targetIndex].map((at) => noteNameIn(report, at)).join(' ')],
          ['Into', `${intervalLabel(target.interval)} of ${typeset(target.chord ?? 'no chord')}`],
          ['Rule', ruleOf({ function: kind })],
        ]}
      />
    </>
  );
}

const ENDS = { home: 'comes home', floats: 'floats', asks: 'asks' } as const;

function PhraseBody({ report, index }: BodyProps) {
  const phrase = elementAt(report.phrases, index);
  const { startBeat, endBeat, noteIndices, pickupBeats, changesCrossed, endInterval, motif, answers } =
    phrase;
  const pickup = pickupBeats > 0 ? `, a pickup of ${beatsWord(pickupBeats)}` : '';
  const alike = report.phrases.filter((other) => other.motif === motif).length;
  return (
    <>
      <Title>A phrase that {ENDS[phrase.end]}</Title>
      <Facts
        facts={[
          ['Length', `${beatsWord(endBeat - startBeat)}, ${noteIndices.length} notes${pickup}`],
          ['Against the changes', changesCrossed === 0 ? 'it crosses none' : `it crosses ${changesCrossed}`],
          ['Its last note', endInterval === null ? 'over no chord' : `the ${intervalWord(endInterval)}`],
          ['Motif', motif === undefined ? '' : `${alike} phrases share its shape`],
          ['Answers', answers === undefined ? '' : `phrase ${answers + 1}`],
        ]}
      />
    </>
  );
}

function ChorusBody({ report, index }: BodyProps) {
  const judged = report.changes.filter(({ chorus, landing }) => chorus === index + 1 && !landing.rest);
  const met = judged.filter(({ landing }) => landing.verdict === 'target').length;
  const curve = report.arc[index];
  const height = curve?.meanHeight ?? null;
  return (
    <>
      <Title>Chorus {index + 1}</Title>
      <Facts
        facts={[
          ['Targets', `${met} of ${judged.length} changes`],
          ['Notes a bar', curve ? `${round(curve.density)}` : '–'],
          ['Mean tension', height === null ? '–' : `${round(height)} of 4`],
        ]}
      />
    </>
  );
}
