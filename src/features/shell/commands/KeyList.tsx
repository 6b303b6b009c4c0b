'use client';
import { usePreferences } from '../preferences';
import { keysOf, type Bindings } from './bindings';
import { COMMAND_IDS, COMMANDS, PEDAL, SCOPES, scopeOf, type CommandId, type Scope } from './catalogue';
import { shownKey } from './keys';
import { PanelFrame } from './PanelFrame';
import { usePanelCommands } from './panels';
import type { Command } from './registry';

const GESTURES = { press: 'press', hold: 'hold', double: 'press twice' } as const;

/** Keys of one command, the pedal's gesture, and what it does. */
function Row({ id, label, bindings }: { id: CommandId; label: string; bindings: Bindings }) {
  const { pedal } = COMMANDS[id];
  const keys = keysOf(bindings, id).slice(0, id === PEDAL ? 7 : 3);
  if (keys.length === 0 && !pedal) return null;
  return (
    <li className="grid grid-cols-[minmax(0,auto)_minmax(0,1fr)] items-baseline gap-x-2.5 py-0.5">
      <span className="flex min-w-[52px] flex-wrap gap-1">
        {pedal && <span className="font-[640] text-now">{GESTURES[pedal]}</span>}
        {keys.map((key) => (
          <kbd key={key} className="key">
            {shownKey(key)}
          </kbd>
        ))}
      </span>
      <span className="text-soft">{label}</span>
    </li>
  );
}

function Section({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <section className="mt-4 border-t border-line pt-3">
      <h3 className="heading">{name}</h3>
      <ul className="grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3">{children}</ul>
    </section>
  );
}

const hasKey = (bindings: Bindings, id: CommandId): boolean =>
  keysOf(bindings, id).length > 0 || COMMANDS[id].pedal !== undefined;

/** Every key there is: first those that work here and now. */
export function KeyList({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { bindings } = usePreferences();
  return (
    <PanelFrame open={open} onClose={onClose} title="Keys and pedal">
      <p className="mt-1 max-w-[760px] text-soft">
        A pedal may send any of <PedalKeys bindings={bindings} />; it can be pressed, held, or pressed twice.
        Every key can be changed in Settings.
      </p>
      <Sections bindings={bindings} />
    </PanelFrame>
  );
}

function Sections({ bindings }: { bindings: Bindings }) {
  const here: readonly Command[] = usePanelCommands().filter(({ id }) => hasKey(bindings, id));
  const isHere = new Set(here.map(({ id }) => id));
  return (
    <>
      <Section name="Here, now">
        {here.map(({ id, label }) => (
          <Row key={id} id={id} label={label} bindings={bindings} />
        ))}
      </Section>
      {(Object.keys(SCOPES) as Scope[]).map((scope) => {
        const ids = COMMAND_IDS.filter(
          (id) => scopeOf(id) === scope && id !== PEDAL && !isHere.has(id) && hasKey(bindings, id),
        );
        if (ids.length === 0) return null;
        return (
          <Section key={scope} name={SCOPES[scope]}>
            {ids.map((id) => (
              <Row key={id} id={id} label={COMMANDS[id].label} bindings={bindings} />
            ))}
          </Section>
        );
      })}
    </>
  );
}

const PedalKeys = ({ bindings }: { bindings: Bindings }) =>
  keysOf(bindings, PEDAL).map((key) => (
    <kbd key={key} className="key mr-1">
      {shownKey(key)}
    </kbd>
  ));
