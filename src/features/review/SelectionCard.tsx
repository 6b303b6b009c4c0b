'use client';
import { useMemo, type ReactNode } from 'react';
import type { Report } from '@/core/analyse';
import { placesSounding, stringName } from '@/core/neck';
import { fingeredTake, intervalWord, typeset } from '@/core/findings';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { intervalLabel } from '@/ui/intervalLabel';
import { NeckMap } from '@/ui/neck/NeckMap';
import { KeyOf } from '../shell/commands/KeyOf';
import { noteNameIn } from './noteNames';
import type { FixAsked } from './places';
import { noteWords } from './reviewWords';
import { beatsWord, figureName, ruleOf, whyOf } from './rules';
import type { Selection } from './selection';
import { elementAt, present } from '@/core/shared';

type Props = {
  report: Report;
  selection: Selection;
  place: string;
  onClose: () => void;
  onHear: () => void;
  onFix: (fix: FixAsked) => void;
  /** Makes a drill of a phrase. */ onPhrase: (index: number) => void;
  canCorrect?: ReactNode;
};

/**
 * What is selected: what it is, what it did, why it matters, by what rule, and the smallest change that would
 * have met the chord.
 */
export function SelectionCard(props: Props) {
  const { selection, place, onClose, onHear } = props;
  return (
    <section aria-label="Selected" className="mb-4 border-t-2 border-now pt-2.5">
      <div className="flex justify-between text-[15px] leading-6 text-soft">
        <h2>{place}</h2>
        <button type="button" onClick={onClose} className="text-dim hover:text-ink">
          <KeyOf command="review.form.clear" /> close
        </button>
      </div>
      <div aria-live="polite">{bodyOf(props)}</div>
      <p className="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-[15px]">
        <button type="button" className="font-[580] text-now hover:underline" onClick={onHear}>
          Hear it <KeyOf command="review.form.hear" className="ml-1" />
        </button>
        {selection.kind === 'phrase' && (
          <button
            type="button"
            className="text-soft hover:text-ink"
            onClick={() => props.onPhrase(selection.index)}
          >
            Practise it on every chord
          </button>
        )}
        {selection.kind !== 'chorus' && props.canCorrect}
      </p>
    </section>
  );
}

function bodyOf(props: Props): ReactNode {
  const {
    report,
    selection: { kind, index },
  } = props;
  switch (kind) {
    case 'note':
      return <NoteBody {...props} index={index} />;
    case 'change':
      return <ChangeBody {...props} index={index} />;
    case 'figure': {
      const figure = elementAt(report.figures, index);
      return (
        <>
          <p className="mt-2.5 text-[36px] leading-[44px] font-[640]">{figureName(figure.kind)}</p>
          <Facts
            facts={[
              [
                'Notes',
                [...figure.noteIndices, figure.targetIndex].map((at) => noteNameIn(report, at)).join(' '),
              ],
              [
                'Into',
                `${intervalLabel(present(report.notes[figure.targetIndex]).interval)} of ${typeset(present(report.notes[figure.targetIndex]).chord ?? 'no chord')}`,
              ],
              [
                'Rule',
                ruleOf({ ...present(report.notes[present(figure.noteIndices[0])]), function: figure.kind }),
              ],
            ]}
          />
        </>
      );
    }
    case 'phrase': {
      const phrase = elementAt(report.phrases, index);
      const end = { home: 'comes home', floats: 'floats', asks: 'asks' }[phrase.end];
      return (
        <>
          <p className="mt-2.5 text-[36px] leading-[44px] font-[640]">A phrase that {end}</p>
          <Facts
            facts={[
              [
                'Length',
                `${beatsWord(phrase.endBeat - phrase.startBeat)}, ${phrase.noteIndices.length} notes${phrase.pickupBeats > 0 ? `, a pickup of ${beatsWord(phrase.pickupBeats)}` : ''}`,
              ],
              [
                'Against the changes',
                phrase.changesCrossed === 0 ? 'it crosses none' : `it crosses ${phrase.changesCrossed}`,
              ],
              [
                'Its last note',
                phrase.endInterval === null ? 'over no chord' : `the ${intervalWord(phrase.endInterval)}`,
              ],
              ...(phrase.motif === undefined
                ? []
                : [
                    [
                      'Motif',
                      `${report.phrases.filter((other) => other.motif === phrase.motif).length} phrases share its shape`,
                    ] as const,
                  ]),
              ...(phrase.answers === undefined ? [] : [['Answers', `phrase ${phrase.answers + 1}`] as const]),
            ]}
          />
        </>
      );
    }
    case 'chorus': {
      const inside = report.changes.filter(({ chorus }) => chorus === index + 1);
      const judged = inside.filter(({ landing }) => !landing.rest);
      const arc = report.arc[index];
      return (
        <>
          <p className="mt-2.5 text-[36px] leading-[44px] font-[640]">Chorus {index + 1}</p>
          <Facts
            facts={[
              [
                'Targets',
                `${judged.filter(({ landing }) => landing.verdict === 'target').length} of ${judged.length} changes`,
              ],
              ['Notes a bar', arc ? `${round(arc.density)}` : '–'],
              ['Mean height', arc?.meanHeight === null || !arc ? '–' : `${round(arc.meanHeight)} of 4`],
            ]}
          />
        </>
      );
    }
  }
}

const round = (value: number): number => Math.round(value * 10) / 10;

function Facts({ facts }: { facts: readonly (readonly [string, string])[] }) {
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

function NoteBody({ report, index, onFix }: Props & { index: number }) {
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
          ['What it did', words.did],
          ['Why it matters', whyOf(report, index)],
          ['By the rule', ruleOf(note)],
        ]}
      />
      {change?.fix && <FixPart report={report} fix={change.fix} onFix={onFix} />}
    </>
  );
}

function ChangeBody({ report, index, onFix }: Props & { index: number }) {
  const change = elementAt(report.changes, index);
  const { landing, connection } = change;
  const timing = {
    on: 'on the change',
    early: 'early',
    held: 'held over from before',
    late: 'late',
    none: '',
  }[landing.timing];
  let landed: string;
  if (landing.noteIndex === null) {
    if (landing.rest) landed = 'At rest: nothing sounded near it, so it is not counted.';
    else landed = 'Nothing landed on it.';
  } else
    landed = `${noteNameIn(report, landing.noteIndex)}, the ${intervalWord(landing.interval ?? '')}, ${timing}.`;
  let turned: string;
  if (change.turnedAtBeat === undefined) turned = '';
  else if (Math.abs(change.turnedAtBeat - change.beat) < 0.25) turned = 'With the change.';
  else
    turned = `${beatsWord(Math.abs(change.turnedAtBeat - change.beat))} ${change.turnedAtBeat > change.beat ? 'after' : 'before'} it.`;
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
          ['Landing', landed],
          [
            'Verdict',
            {
              target: 'A target of the plan: met.',
              'chord-tone': 'Another chord tone.',
              colour: 'A colour: not met.',
              scale: 'A scale tone: not met.',
              outside: 'Outside: not met.',
              none: '',
            }[landing.verdict],
          ],
          [
            'Then',
            landing.resolutionIndex === undefined
              ? ''
              : `the ${intervalWord(present(report.notes[landing.resolutionIndex]).interval ?? '')}, ${beatsWord(landing.resolvedAfterBeats ?? 0)} after the change`,
          ],
          [
            'Way in',
            connection.kind === null
              ? ''
              : {
                  common: 'by the same note',
                  step: 'by step',
                  skip: 'by a skip',
                  leap: 'by a leap',
                  fresh: 'after a rest',
                }[connection.kind],
          ],
          ['Where the line turned', turned],
          ['Why it matters', landing.noteIndex === null ? '' : whyOf(report, landing.noteIndex)],
        ]}
      />
      {change.fix && <FixPart report={report} fix={change.fix} onFix={onFix} />}
    </>
  );
}

/** The one-note fix: by how much, where it lies under the same hand, and a way to hear it. */
function FixPart({ report, fix, onFix }: { report: Report; fix: FixAsked; onFix: (fix: FixAsked) => void }) {
  const guitar = useGuitar();
  const note = elementAt(report.notes, fix.noteIndex);
  const from = Math.round(note.midi);
  const by = fix.toMidi - from;
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const touches = useMemo(() => fingeredTake(report, instrument).touches, [report, instrument]);
  const place = touches[fix.noteIndex];
  const to =
    place &&
    (place.fret + by >= 0 && place.fret + by <= place.fret + 4
      ? { string: place.string, fret: place.fret + by }
      : placesSounding(fix.toMidi, instrument).sort(
          (a, b) => Math.abs(a.fret - place.fret) - Math.abs(b.fret - place.fret),
        )[0]);
  const [a, b] = [noteNameIn(report, fix.noteIndex), noteNameIn(report, fix.noteIndex, fix.toMidi)];
  return (
    <div className="mt-4 border-t border-line pt-2">
      <h3 className="text-sm font-[620] text-now">One-note fix</h3>
      <p className="text-[19px] leading-7">
        <b className="font-[640]">
          {a} to {b}
        </b>
        , {Math.abs(by) === 1 ? 'one fret' : `${Math.abs(by)} frets`} {by > 0 ? 'higher' : 'lower'}.
      </p>
      {place && to && (
        <div className="mt-1 max-w-[300px]">
          <NeckMap
            tuning={instrument.tuning}
            from={Math.max(1, Math.min(place.fret, to.fret) - 2)}
            to={Math.max(place.fret, to.fret) + 2}
            width={300}
            gap={17}
            size={11}
            leftHanded={guitar.leftHanded}
            label={`${a} on the ${typeset(stringName(elementAt(instrument.tuning, place.string - 1)))} string, fret ${place.fret}; ${b} at fret ${to.fret}`}
            marks={[
              { string: place.string, fret: place.fret, label: a, look: 'tone' },
              { string: to.string, fret: to.fret, label: b, look: 'lacks' },
            ]}
            arrows={
              place.string === to.string && Math.abs(place.fret - to.fret) > 1
                ? [{ string: place.string, from: place.fret, to: to.fret }]
                : []
            }
          />
        </div>
      )}
      <p className="mt-1 text-[15px]">
        <button type="button" className="font-[580] text-now hover:underline" onClick={() => onFix(fix)}>
          Hear the fix <KeyOf command="review.form.fix" className="ml-1" />
        </button>{' '}
        <span className="text-dim">your own sound, that note moved</span>
      </p>
    </div>
  );
}
