'use client';
import { useMemo, useState } from 'react';
import { bothWays, type Instrument, type NeckNote, type NeckPath } from '@/core/neck';
import { noteName, rootPc, spellOver } from '@/core/music';
import { typeset } from '@/core/music';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import type { Study } from './studyView';
import { elementAt } from '@/core/shared';
import { Select } from '@/ui/controls';

type Props = { study: Study; index: number; position: number; instrument: Instrument; leftHanded: boolean };

const SPAN = 24;

/**
 * The plan's notes up the neck with a finger for each: reach or move, from the string and the finger the
 * player names.
 */
export function FingeringView({ study, index, position, instrument, leftHanded }: Props) {
  const [string, setString] = useState(Math.min(6, instrument.tuning.length));
  const [finger, setFinger] = useState(0);
  const { chord, plan } = elementAt(study.cells, index);
  const line = useMemo(
    () =>
      chord
        ? climb(
            plan.material,
            rootPc(chord),
            Math.min(string, instrument.tuning.length),
            finger,
            position,
            instrument,
          )
        : [],
    [chord, plan.material, string, finger, position, instrument],
  );
  const answer = useMemo(() => (line.length > 0 ? bothWays(line, instrument) : null), [line, instrument]);
  if (!chord) return <p className="text-soft">No chord sounds here.</p>;
  const nameOf = (pc: number) => typeset(noteName(spellOver(chord, pc)));
  return (
    <div>
      <StartChoice
        root={nameOf(rootPc(chord))}
        strings={instrument.tuning.length}
        string={string}
        finger={finger}
        onString={setString}
        onFinger={setFinger}
      />
      {!answer?.ok ? (
        <p role="alert" className="text-ink">
          {answer ? answer.problems[0].message : 'The root does not lie on this string.'}
        </p>
      ) : (
        <>
          <Way
            title={
              answer.value.shifting
                ? `Reach: ${moves(answer.value.stretching)}`
                : moves(answer.value.stretching)
            }
            path={answer.value.stretching}
            line={line}
            instrument={instrument}
            leftHanded={leftHanded}
            nameOf={nameOf}
          />
          {answer.value.shifting && (
            <Way
              title={`Move instead of reaching: ${moves(answer.value.shifting)}`}
              path={answer.value.shifting}
              line={line}
              instrument={instrument}
              leftHanded={leftHanded}
              nameOf={nameOf}
            />
          )}
        </>
      )}
    </div>
  );
}

const moves = ({ shifts }: NeckPath): string =>
  shifts === 0 ? 'the hand stays' : `the hand moves ${shifts === 1 ? 'once' : `${shifts} times`}`;

/**
 * Two octaves up from the root that lies on the string nearest the position; the first note is pinned to its
 * string and finger.
 */
function climb(
  pcs: readonly number[],
  root: number,
  string: number,
  finger: number,
  position: number,
  { tuning, frets }: Instrument,
): NeckNote[] {
  const open = elementAt(tuning, string - 1);
  const places = Array.from({ length: frets + 1 }, (_, fret) => fret).filter(
    (fret) => (open + fret) % 12 === root && (finger === 0 || fret > 0),
  );
  const fret = places.sort((a, b) => Math.abs(a - position) - Math.abs(b - position))[0];
  if (fret === undefined) return [];
  const start = open + fret;
  const highest = elementAt(tuning, 0) + frets;
  const notes: NeckNote[] = [];
  for (let midi = start; midi <= Math.min(highest, start + SPAN); midi++)
    if (pcs.includes(midi % 12))
      notes.push({
        onsetBeat: notes.length / 2,
        midi,
        ...(midi === start ? { string, ...(finger > 0 ? { finger } : {}) } : {}),
      });
  return notes;
}

type WayProps = {
  title: string;
  path: NeckPath;
  line: readonly NeckNote[];
  instrument: Instrument;
  leftHanded: boolean;
  nameOf: (pc: number) => string;
};

function Way({ title, path: { path }, line, instrument, leftHanded, nameOf }: WayProps) {
  const marks = path.map(({ string, fret, finger }, place): NeckMark => ({
    string,
    fret,
    label: String(finger),
    look: place === 0 || elementAt(line, place).midi % 12 === elementAt(line, 0).midi % 12 ? 'lacks' : 'tone',
  }));
  const fretted = path.map(({ fret }) => fret).filter((fret) => fret > 0);
  const from = Math.max(1, Math.min(...fretted));
  return (
    <figure className="mb-5">
      <figcaption className="heading">
        {title}
        <span className="ml-4 font-normal">figures are fingers; the root stands out</span>
      </figcaption>
      <NeckMap
        tuning={instrument.tuning}
        from={from}
        to={Math.max(from + 4, ...fretted)}
        marks={marks}
        leftHanded={leftHanded}
        width={860}
        gap={24}
        size={13}
        names
        label={`Fingers for ${line.map(({ midi }) => nameOf(midi % 12)).join(' ')}`}
      />
      <p className="mt-1 font-mono text-[13px] leading-5 text-dim">
        {path
          .map(
            ({ string, finger }, place) =>
              `${nameOf(elementAt(line, place).midi % 12)} ${finger}${path[place - 1]?.string === string ? '' : ` on ${string}`}`,
          )
          .join('   ')}
      </p>
    </figure>
  );
}

type StartProps = {
  root: string;
  strings: number;
  string: number;
  finger: number;
  onString: (string: number) => void;
  onFinger: (finger: number) => void;
};

const FINGERS = [
  [0, 'whichever finger'],
  [1, 'the index'],
  [2, 'the middle finger'],
  [3, 'the ring finger'],
  [4, 'the little finger'],
] as const;

/** The string and the finger a line begins with. */
function StartChoice({ root, strings, string, finger, onString, onFinger }: StartProps) {
  return (
    <p className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[15px] text-soft">
      <span>from {root}</span>
      <label>
        on string{' '}
        <Select
          label="on string"
          look="line"
          value={string}
          options={Array.from({ length: strings }, (_, place) => [place + 1, String(place + 1)] as const)}
          onChange={onString}
        />
      </label>
      <label>
        starting with{' '}
        <Select label="starting with" look="line" value={finger} options={FINGERS} onChange={onFinger} />
      </label>
    </p>
  );
}
