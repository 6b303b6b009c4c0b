'use client';
import { DEFAULT_BINDINGS, keysOf, resetKeys, type Bindings } from '../shell/commands/bindings';
import { COMMAND_IDS, COMMANDS, PEDAL, SCOPES, scopeOf, type Scope } from '../shell/commands/catalogue';
import { prefer, usePreferences } from '../shell/preferences';
import { LearnKey } from './LearnKey';

const GESTURES = { press: 'pedal', hold: 'pedal held', double: 'pedal twice' } as const;

/** Every command with its keys, by where it works; each key can be changed. */
export function AllKeys() {
  const { bindings } = usePreferences();
  const isChanged = Object.keys(bindings).length > 0;
  return (
    <>
      <p className="max-w-[760px] leading-6 text-soft">
        Press the key of a command to give it another one. Where it is taken, the other command loses it, and
        that is said.{' '}
        {isChanged && (
          <button
            type="button"
            className="underline hover:text-ink"
            onClick={() => prefer({ bindings: DEFAULT_BINDINGS })}
          >
            Reset all keys
          </button>
        )}
      </p>
      <div className="mt-2 gap-x-8 md:columns-2 lg:columns-3">
        {(Object.keys(SCOPES) as Scope[]).map((scope) => (
          <ScopeKeys key={scope} scope={scope} bindings={bindings} />
        ))}
      </div>
    </>
  );
}

function ScopeKeys({ scope, bindings }: { scope: Scope; bindings: Bindings }) {
  const ids = COMMAND_IDS.filter((id) => id !== PEDAL && scopeOf(id) === scope);
  return (
    <section className="mb-4 break-inside-avoid-column" aria-label={SCOPES[scope]}>
      <h3 className="heading border-b border-line">{SCOPES[scope]}</h3>
      <ul>
        {ids.map((id) => (
          <li key={id} className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 py-[1px]">
            <span className="text-soft">
              {COMMANDS[id].label}
              <Gesture gesture={COMMANDS[id].pedal} />
            </span>
            <span className="flex items-baseline gap-2">
              {bindings[id] !== undefined && keysOf(bindings, id) !== COMMANDS[id].keys && (
                <button
                  type="button"
                  className="text-sm text-dim underline hover:text-ink"
                  aria-label={`As it was: ${COMMANDS[id].label}`}
                  onClick={() => prefer({ bindings: resetKeys(bindings, id) })}
                >
                  as it was
                </button>
              )}
              <LearnKey id={id} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const Gesture = ({ gesture }: { gesture: keyof typeof GESTURES | undefined }) =>
  gesture === undefined ? null : <span className="ml-2 text-sm text-dim">{GESTURES[gesture]}</span>;
