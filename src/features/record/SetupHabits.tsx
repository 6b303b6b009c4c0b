'use client';
import { useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { prefer, usePreferences } from '../shell/preferences';
import {
  changesSince,
  keepFavourite,
  removeFavourite,
  slowWithoutChords,
  useFavourites,
  type WholeSetup,
} from './favourites';
import type { RecordChart, Settings } from './settings';

type Props = {
  settings: Settings;
  charts: readonly RecordChart[];
  onChange: (settings: Settings) => void;
};

/** What differs from the last take, and the setups a player comes back to. */
export function SetupHabits({ settings, charts, onChange }: Props) {
  const { bandLevel, levels, chords } = usePreferences();
  const { last, favourites } = useFavourites();
  const [isNaming, setIsNaming] = useState(false);
  const now: WholeSetup = { settings, band: { bandLevel, levels, chords } };
  const take = (setup: WholeSetup) => {
    prefer(setup.band);
    onChange(setup.settings);
  };
  const known = (setup: WholeSetup) => charts.some(({ id }) => id === setup.settings.chartId);
  const changed = last ? changesSince(last, now, charts) : [];
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 text-[15px] text-soft">
      {last && known(last) && changed.length > 0 && (
        <>
          <span>
            Since your last take: <b className="font-[580] text-ink">{changed.join(', ')}</b>
          </span>
          <button type="button" className="underline hover:text-ink" onClick={() => take(last)}>
            as last time
          </button>
        </>
      )}
      <button
        type="button"
        className="underline hover:text-ink"
        onClick={() => take(slowWithoutChords(now, charts))}
      >
        slow, no chords
      </button>
      {favourites.filter(known).map((favourite) => (
        <FavouriteMenu
          key={favourite.name}
          name={favourite.name}
          onTake={() => take(favourite)}
          onRemove={() => removeFavourite(favourite.name)}
        />
      ))}
      {isNaming ? (
        <NameField
          onName={(name) => {
            if (name) keepFavourite({ ...now, name });
            setIsNaming(false);
          }}
        />
      ) : (
        <button type="button" className="hover:text-ink" onClick={() => setIsNaming(true)}>
          keep as a favourite
        </button>
      )}
    </div>
  );
}

type MenuProps = { name: string; onTake: () => void; onRemove: () => void };
const ITEM = 'cursor-pointer px-4 py-1.5 outline-none data-highlighted:bg-row';

const FavouriteMenu = ({ name, onTake, onRemove }: MenuProps) => (
  <DropdownMenu.Root>
    <DropdownMenu.Trigger className="underline hover:text-ink">{name}</DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content align="start" className="z-20 border border-line bg-panel py-1 text-ink">
        <DropdownMenu.Item className={ITEM} onSelect={onTake}>
          Set it so
        </DropdownMenu.Item>
        <DropdownMenu.Item className={ITEM} onSelect={onRemove}>
          Forget it
        </DropdownMenu.Item>
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);

/** A name for the setup as it stands; Enter keeps it, Escape does not. */
function NameField({ onName }: { onName: (name: string | null) => void }) {
  const [name, setName] = useState('');
  return (
    <input
      className="field w-52 !py-1 text-ink"
      aria-label="Name of the favourite"
      placeholder="a name, then Enter"
      maxLength={40}
      autoFocus
      value={name}
      onChange={({ target }) => setName(target.value)}
      onBlur={() => onName(name.trim() || null)}
      onKeyDown={({ key }) => {
        if (key === 'Enter') onName(name.trim() || null);
        if (key === 'Escape') onName(null);
      }}
    />
  );
}
