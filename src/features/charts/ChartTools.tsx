'use client';
import Link from 'next/link';
import { useState } from 'react';
import { Dialog, DropdownMenu } from 'radix-ui';
import { harmonyOf, timelineOf, transposeText, type Chart } from '@/core/chart';
import { typeset } from '@/core/music';
import { ask } from '@/audio/persistence/serverTakes';
import { Select } from '@/ui/controls';
import { useDates } from '@/ui/dates';
import { KeyOf } from '../shell/commands/KeyOf';
import type { ChartFile } from './moveChart';

type Props = {
  id: string;
  chart: Chart;
  readable: boolean;
  hearing: boolean;
  onHear: () => void;
  onText: (text: string) => void;
  onTrouble: (message: string) => void;
  onRemove: () => void;
};

const MAJOR = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
const MINOR = ['Cm', 'C#m', 'Dm', 'D#m', 'Ebm', 'Em', 'Fm', 'F#m', 'Gm', 'G#m', 'Am', 'Bbm', 'Bm'];
const real = (key: string): string => typeset(key).replace('m', ' minor');

/** What can be done with a chart as a whole: hear it, move it, export it, turn it back, remove it. */
export function ChartTools({ id, chart, readable, hearing, onHear, onText, onTrouble, onRemove }: Props) {
  const key = chart.key ?? harmonyOf(chart, timelineOf(chart, 120)).regions[0]?.key ?? null;
  const minor = key?.minor ?? false;
  const own = key
    ? key.tonic.letter +
      (key.tonic.alter < 0 ? 'b'.repeat(-key.tonic.alter) : '#'.repeat(key.tonic.alter)) +
      (minor ? 'm' : '')
    : '';
  const keys = minor ? MINOR : MAJOR;
  const transpose = (to: string) => {
    const moved = transposeText(chart.text, { to });
    if (moved.ok) onText(moved.value);
    else onTrouble(moved.problems[0].message);
  };
  const save = async (format: ChartFile) => (await import('./moveChart')).saveChart(chart, format);
  return (
    <div
      role="group"
      aria-label="Chart tools"
      className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2 text-[15px] text-soft"
    >
      <button type="button" className="hover:text-ink" onClick={onHear} aria-pressed={hearing}>
        <KeyOf command="chart.hear" /> {hearing ? 'stop' : 'hear it'}
      </button>
      <label>
        key{' '}
        <Select
          label="Transpose to"
          look="line"
          disabled={!readable}
          value={own}
          options={[...new Set([own, ...keys])].map((one) => [one, real(one)] as const)}
          onChange={transpose}
        />
      </label>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="hover:text-ink disabled:text-dim" disabled={!readable}>
          export
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" className="z-20 border border-line bg-panel py-1 text-ink">
            {(
              [
                ['text', 'Chart text'],
                ['musicxml', 'MusicXML'],
                ['midi', 'MIDI markers'],
              ] as const
            ).map(([format, name]) => (
              <DropdownMenu.Item
                key={format}
                className="cursor-pointer px-4 py-1.5 outline-none data-highlighted:bg-row"
                onSelect={() => void save(format)}
              >
                {name}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {readable && (
        <Link className="hover:text-ink" href={`/charts/${id}/print`}>
          print
        </Link>
      )}
      <Versions id={id} now={chart.text} onText={onText} />
      <button type="button" className="hover:text-ink" onClick={onRemove}>
        remove
      </button>
    </div>
  );
}

type Version = { readonly id: string; readonly text: string; readonly createdAt: number };

/** What the chart said before: turned back by one press, and that can be undone. */
function Versions({ id, now, onText }: { id: string; now: string; onText: (text: string) => void }) {
  const dates = useDates();
  const [versions, setVersions] = useState<readonly Version[] | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const load = async (open: boolean) => {
    if (!open) return;
    try {
      setVersions(await ask<Version[]>(`/api/charts/${id}/versions`));
      setTrouble(null);
    } catch {
      setTrouble('The server does not answer; the versions are safe there.');
    }
  };
  return (
    <Dialog.Root onOpenChange={(open) => void load(open)}>
      <Dialog.Trigger className="hover:text-ink">versions</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/70" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 max-h-[80dvh] w-[min(560px,calc(100vw-32px))] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-line bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[620]">Earlier versions</Dialog.Title>
          {trouble && (
            <p role="alert" className="mt-3 text-ink">
              {trouble}
            </p>
          )}
          {versions?.length === 0 && (
            <p className="mt-3 text-soft">
              None yet. What stands here for a minute is kept when it is changed. Takes keep the chart they
              were played on, even when you change it here.
            </p>
          )}
          <ul className="mt-3">
            {(versions ?? []).map((version) => (
              <li key={version.id} className="flex items-center gap-4 border-t border-line py-2">
                <span className="min-w-0 grow">
                  <b className="block font-[560]">
                    {dates.day(version.createdAt)}, {dates.time(version.createdAt)}
                  </b>
                  <span className="block truncate font-mono text-sm text-dim">
                    {firstOther(version.text, now)}
                  </span>
                </span>
                <Dialog.Close className="quiet" onClick={() => onText(version.text)}>
                  Turn back
                </Dialog.Close>
              </li>
            ))}
          </ul>
          <div className="mt-5 flex justify-end">
            <Dialog.Close className="go">Done</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The first line in which a version differs from the text of now. */
function firstOther(then: string, now: string): string {
  const lines = now.split('\n');
  return (
    then
      .split('\n')
      .find((line, index) => line !== lines[index])
      ?.trim() ||
    then.trim().split('\n').pop() ||
    ''
  );
}
