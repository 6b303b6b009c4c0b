'use client';
import { Command as Palette, defaultFilter } from 'cmdk';
import { useRouter } from 'next/navigation';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import { typeset } from '@/core/music';
import type { Named, Names } from '@/server/names';
import { ChordWords } from '@/ui/ChordWords';
import { usePreferences } from '../preferences';
import { keysOf, type Bindings } from './bindings';
import { PEDAL, type CommandId } from './catalogue';
import { shownKey } from './keys';
import { usePanelCommands } from './panels';
import { commandNow, type Command } from './registry';

const NOT_LISTED: readonly CommandId[] = [PEDAL, 'app.palette'];
const isListed = ({ id }: Command): boolean => !NOT_LISTED.includes(id);
const isScreen = ({ id }: Command): boolean => id.startsWith('app.');

/** Finds anything by a few letters of its name: what can be done here, screens, charts, takes, drills. */
export function CommandPalette({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-[12vh] left-1/2 z-30 w-[680px] max-w-[94vw] -translate-x-1/2 border-t-[3px] border-now bg-panel"
          aria-describedby={undefined}
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Finder onClose={onClose} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const GROUP =
  '[&_[cmdk-group-heading]]:px-5 [&_[cmdk-group-heading]]:pt-3 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-dim';

/** By what stands in the row; ids are nobody's words. */
const byWords = (_: string, search: string, words: string[] = []): number =>
  defaultFilter?.(words.join(' '), search) ?? 0;

function Finder({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const { bindings } = usePreferences();
  const { names, failed } = useNames();
  const commands = usePanelCommands().filter(isListed);
  const choose = (work: () => void) => () => {
    onClose();
    // the panel is gone before the command acts: what it opens may want the focus
    setTimeout(work, 0);
  };
  const commandRow = (command: Command) => (
    <Row
      key={command.id}
      value={command.id}
      words={command.label}
      keys={keysOf(bindings, command.id)}
      onSelect={choose(() => commandNow(command.id)?.run())}
    />
  );
  const places = (items: readonly Named[], path: string) =>
    items.map(({ id, name, detail }) => (
      <Row
        key={id}
        value={`${path}/${id}`}
        words={typeset(name)}
        plain={name}
        detail={detail}
        onSelect={choose(() => router.push(`${path}/${id}`))}
      />
    ));
  return (
    <Palette label="Find" loop filter={byWords}>
      <Palette.Input
        autoFocus
        placeholder="A command, a screen, a chart, a take, a drill"
        className="w-full border-b border-line bg-transparent px-5 py-4 text-[20px] text-ink outline-none placeholder:text-dim"
      />
      <Palette.List className="max-h-[60vh] overflow-y-auto pb-3">
        <Palette.Empty className="px-5 py-4 text-soft">Nothing is called that.</Palette.Empty>
        <Palette.Group heading="Here" className={GROUP}>
          {commands.filter((command) => !isScreen(command)).map(commandRow)}
        </Palette.Group>
        <Palette.Group heading="Screens" className={GROUP}>
          {commands.filter(isScreen).map(commandRow)}
        </Palette.Group>
        <Palette.Group heading="Charts" className={GROUP}>
          {places(names.charts, '/charts')}
        </Palette.Group>
        <Palette.Group heading="Drills" className={GROUP}>
          {places(names.drills, '/drills')}
        </Palette.Group>
        <Palette.Group heading="Takes" className={GROUP}>
          {places(names.takes, '/takes')}
        </Palette.Group>
      </Palette.List>
      {failed && (
        <p role="alert" className="border-t border-line px-5 py-2 text-soft">
          The server does not answer: charts, takes and drills cannot be found by name just now.
        </p>
      )}
      <Foot bindings={bindings} />
    </Palette>
  );
}

type RowProps = {
  value: string;
  words: string;
  /** The words as they are typed, where signs stand in them. */
  plain?: string;
  detail?: string;
  keys?: readonly string[];
  onSelect: () => void;
};

function Row({ value, words, plain = '', detail = '', keys = [], onSelect }: RowProps) {
  return (
    <Palette.Item
      value={value}
      keywords={plain === '' || plain === words ? [words, detail] : [words, plain, detail]}
      onSelect={onSelect}
      className="flex cursor-default items-baseline gap-x-3 border-l-[3px] border-transparent px-[17px] py-1.5 text-[17px] text-soft data-[selected=true]:border-now data-[selected=true]:bg-row data-[selected=true]:text-ink"
    >
      <span className="min-w-0 grow truncate">
        <ChordWords text={words} />
      </span>
      {detail && <span className="shrink-0 text-sm text-dim">{detail}</span>}
      {keys.slice(0, 2).map((key) => (
        <kbd key={key} className="key shrink-0">
          {shownKey(key)}
        </kbd>
      ))}
    </Palette.Item>
  );
}

const Foot = ({ bindings }: { bindings: Bindings }) => (
  <p className="flex flex-wrap gap-x-5 gap-y-1 border-t border-line px-5 py-2 text-sm text-dim">
    <span>
      <kbd className="key">↑</kbd> <kbd className="key">↓</kbd> choose
    </span>
    <span>
      <kbd className="key">Enter</kbd> do it
    </span>
    <span>
      <kbd className="key">Esc</kbd> leave
    </span>
    {keysOf(bindings, 'app.keys')[0] && (
      <span className="ml-auto">
        <kbd className="key">{shownKey(keysOf(bindings, 'app.keys')[0] ?? '')}</kbd> all keys
      </span>
    )}
  </p>
);

const NO_NAMES: Names = { charts: [], takes: [], drills: [] };

function useNames(): { names: Names; failed: boolean } {
  const [names, setNames] = useState(NO_NAMES);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const control = new AbortController();
    ask<Names>('/api/names', { signal: control.signal })
      .then(setNames)
      .catch(() => setFailed(!control.signal.aborted));
    return () => control.abort();
  }, []);
  return { names, failed };
}
