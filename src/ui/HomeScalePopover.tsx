'use client';
import { Popover } from 'radix-ui';
import { useState, type ComponentProps } from 'react';
import {
  degreeName,
  noteName,
  plainNote,
  readScale,
  USUAL_ROOTS,
  scaleNotes,
  type Scale,
} from '@/core/music';
import { typeset } from '@/core/music';
import type { HomeScaleProps } from './HomeScalePicker';
import { intervalLabel } from './intervalLabel';

type Trigger = Pick<ComponentProps<'button'>, 'aria-label' | 'className' | 'children'>;

/** The ones most players begin with; any other is typed by name or by degrees. */
const USUAL = [
  'minor pentatonic',
  'major pentatonic',
  'blues',
  'major blues',
  'major',
  'natural minor',
  'dorian',
  'mixolydian',
  'lydian',
  'phrygian',
  'harmonic minor',
  'melodic minor',
  'major sixth-diminished',
  'whole tone',
  'half-whole diminished',
];

const notesOf = (scale: Scale): string =>
  scaleNotes(scale)
    .map((note) => typeset(noteName(plainNote(note))))
    .join(' ');
const degreesOf = (scale: Scale): string =>
  scale.degrees.map((degree) => intervalLabel(degreeName(degree))).join(' ');
const scaleNamed = (name: string): Scale | null => {
  const read = readScale(name);
  return read.ok ? read.value : null;
};

/** The opened picker of a home scale: it is loaded when it is first wanted. */
export default function HomeScalePopover({ trigger, ...choice }: ChoiceProps & { trigger: Trigger }) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger {...trigger} />
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label="Home scale"
          className="z-40 max-h-(--radix-popover-content-available-height) w-[430px] max-w-[94vw] overflow-y-auto border border-line bg-panel p-4 text-[15px] text-soft shadow-lg"
        >
          <ScaleChoice {...choice} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

type ChoiceProps = Omit<HomeScaleProps, 'look' | 'onOpen'>;

function ScaleChoice({ value, fallback, onChange, onConsider, onHear }: ChoiceProps) {
  const chosen = scaleNamed(value ?? fallback) ?? scaleNamed(fallback);
  const root = chosen ? noteName(chosen.root) : 'C';
  const kind = chosen?.kind ?? 'major';
  const considering = (name: string): Considering =>
    onConsider ? { onPointerEnter: () => onConsider(name), onFocus: () => onConsider(name) } : {};
  return (
    <>
      <Roots
        root={root}
        onChoose={(next) => onChange(`${next} ${kind}`)}
        considering={(next) => considering(`${next} ${kind}`)}
      />
      <Typed key={value ?? ''} root={root} value={value} onChange={onChange} onConsider={onConsider} />
      <ul aria-label="Scales" className="mt-2 border-t border-line pt-2">
        {USUAL.map((one) => (
          <li key={one}>
            <button
              type="button"
              aria-pressed={one === kind}
              onClick={() => onChange(`${root} ${one}`)}
              {...considering(`${root} ${one}`)}
              className={`grid w-full grid-cols-[minmax(0,1fr)_auto] gap-3 px-2 py-px text-left hover:bg-row ${one === kind ? 'font-[640] text-ink' : ''}`}
            >
              <span>{one}</span>
              <Degrees name={`${root} ${one}`} />
            </button>
          </li>
        ))}
      </ul>
      {chosen && (
        <p className="sticky -bottom-4 -mb-4 flex items-center gap-3 border-t border-line bg-panel pt-2 pb-3">
          <b className="grow text-ink">{notesOf(chosen)}</b>
          {onHear && (
            <button type="button" className="hover:text-ink" onClick={() => onHear(chosen)}>
              hear it
            </button>
          )}
          {value !== undefined && (
            <button type="button" className="underline hover:text-ink" onClick={() => onChange(undefined)}>
              as the chart has it
            </button>
          )}
        </p>
      )}
    </>
  );
}

const Degrees = ({ name }: { name: string }) => {
  const scale = scaleNamed(name);
  return <span className="text-dim">{scale ? degreesOf(scale) : ''}</span>;
};

type Considering = Pick<ComponentProps<'button'>, 'onPointerEnter' | 'onFocus'>;
type RootsProps = {
  root: string;
  onChoose: (root: string) => void;
  considering: (root: string) => Considering;
};

const Roots = ({ root, onChoose, considering }: RootsProps) => (
  <div role="group" aria-label="Root" className="grid grid-cols-12">
    {USUAL_ROOTS.map((one) => (
      <button
        key={one}
        type="button"
        aria-pressed={one === root}
        onClick={() => onChoose(one)}
        {...considering(one)}
        className={`py-1 text-center ${one === root ? 'border-b-2 border-now font-[640] text-ink' : 'border-b-2 border-transparent hover:text-ink'}`}
      >
        {typeset(one)}
      </button>
    ))}
  </div>
);

type TypedProps = Pick<HomeScaleProps, 'value' | 'onChange' | 'onConsider'> & { root: string };

/** A scale by any name or by its degrees: `E dorian`, `1 b3 4 5 6`. */
function Typed({ root, value, onChange, onConsider }: TypedProps) {
  const [text, setText] = useState(value ?? '');
  const withRoot = (said: string) => (/^[A-G]/i.test(said.trim()) ? said : `${root} ${said}`);
  const full = withRoot(text);
  const read = text.trim() === '' ? null : readScale(full);
  const problem = read && !read.ok ? read.problems[0] : null;
  const take = (name: string) => {
    const named = readScale(name);
    if (named.ok) onChange(named.value.name);
  };
  return (
    <div className="mt-2 border-t border-line pt-2">
      <label className="flex items-center gap-2">
        <span className="text-dim">or</span>
        <input
          aria-label="Scale by name or degrees"
          className="field grow !py-1 font-mono text-ink"
          placeholder="E dorian, or 1 b3 4 5 6"
          value={text}
          onChange={(event) => {
            const said = event.target.value;
            setText(said);
            const named = onConsider && said.trim() !== '' ? scaleNamed(withRoot(said)) : null;
            if (named) onConsider?.(named.name);
          }}
          onBlur={() => read?.ok && take(full)}
          onKeyDown={(event) => {
            if (event.key === 'Enter') take(full);
          }}
        />
      </label>
      {problem && (
        <p role="alert" className="mt-1 text-ink">
          {problem.message}{' '}
          {problem.suggestion && (
            <button type="button" className="underline" onClick={() => take(problem.suggestion ?? '')}>
              Take {problem.suggestion}
            </button>
          )}
        </p>
      )}
    </div>
  );
}
