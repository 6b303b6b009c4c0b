'use client';
import { useRef, useState } from 'react';
import type { BackupKind, KeptBackup } from '@/server/backup';
import { useDates } from '@/ui/dates';
import { byteSize, counted } from './amounts';
import { useBackups, type BackupListing } from './useBackups';

const KINDS: Record<BackupKind, string> = {
  daily: 'daily',
  'before-update': 'before an update',
  asked: 'saved by you',
  brought: 'brought in',
};
const LISTED = 4;

const contentsOf = ({ contents }: KeptBackup): string =>
  contents
    ? [
        counted(contents.takes, 'take'),
        counted(contents.charts, 'chart'),
        counted(contents.drills, 'drill'),
      ].join(', ')
    : 'contents unknown until it is restored';

/** Everything saved in one file: made, kept elsewhere, brought back. */
export function BackupSection({ listing: first }: { listing: BackupListing }) {
  const { listing, busy, words, save, bring, remove, restore } = useBackups(first);
  const [asked, setAsked] = useState<KeptBackup | null>(null);
  const [isAll, setIsAll] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const { backups, folder } = listing;
  return (
    <>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        <button type="button" className="quiet text-ink" disabled={busy !== null} onClick={() => void save()}>
          Save a backup now
        </button>
        <button
          type="button"
          className="quiet"
          disabled={busy !== null}
          onClick={() => file.current?.click()}
        >
          Bring in a backup file
        </button>
        <input
          ref={file}
          type="file"
          accept=".zip,application/zip"
          aria-label="Backup file"
          className="hidden"
          onChange={({ target }) => {
            const [chosen] = target.files ?? [];
            if (chosen) void bring(chosen);
            target.value = '';
          }}
        />
      </div>
      <p role="status" className="mt-1.5 leading-6 text-soft">
        {busy ??
          (words ||
            'All charts, takes with sound, drills and words in one file. Saved each day too; seven are kept.')}
      </p>
      <ul>
        {(isAll ? backups : backups.slice(0, LISTED)).map((backup) => (
          <BackupRow
            key={backup.name}
            backup={backup}
            isBusy={busy !== null}
            onRestore={() => setAsked(backup)}
            onRemove={() => void remove(backup.name)}
          />
        ))}
      </ul>
      {backups.length > LISTED && !isAll && (
        <button
          type="button"
          className="text-soft hover:text-ink hover:underline"
          onClick={() => setIsAll(true)}
        >
          All {backups.length}
        </button>
      )}
      {asked && (
        <RestoreQuestion
          backup={asked}
          onAnswer={(isWanted) => {
            setAsked(null);
            if (isWanted) void restore(asked.name);
          }}
        />
      )}
      {backups.length > 0 && (
        <p className="truncate text-dim" title={folder}>
          In {folder}
        </p>
      )}
    </>
  );
}

type QuestionProps = { backup: KeptBackup; onAnswer: (isWanted: boolean) => void };

/** What restoring a backup does, asked before it is done. */
function RestoreQuestion({ backup, onAnswer }: QuestionProps) {
  const dates = useDates();
  return (
    <p role="alert" className="mt-1 border-l-[3px] border-now pl-3 leading-6 text-soft">
      The backup of {dates.shortDay(backup.at)}, {dates.time(backup.at)} ({contentsOf(backup)}) takes the
      place of everything here. What is here now is kept in a file beside it. Idle Wander starts again.{' '}
      <button type="button" className="font-[580] text-now hover:underline" onClick={() => onAnswer(true)}>
        Restore it
      </button>{' '}
      <button type="button" className="ml-2 hover:text-ink hover:underline" onClick={() => onAnswer(false)}>
        Cancel
      </button>
    </p>
  );
}

type RowProps = { backup: KeptBackup; isBusy: boolean; onRestore: () => void; onRemove: () => void };

function BackupRow({ backup, isBusy, onRestore, onRemove }: RowProps) {
  const dates = useDates();
  const when = `${dates.shortDay(backup.at)}, ${dates.time(backup.at)}`;
  const button = 'shrink-0 text-soft hover:text-ink hover:underline';
  return (
    <li className="border-b border-line py-[5px] leading-5">
      <span className="flex items-baseline gap-3">
        <b className="grow font-[580] text-ink">{when}</b>
        <span className="text-dim">
          {KINDS[backup.kind]}, {byteSize(backup.bytes)}
        </span>
      </span>
      <span className="block text-soft">{contentsOf(backup)}</span>
      <span className="flex flex-wrap items-baseline gap-x-4">
        <a className={button} href={`/api/backups/${backup.name}`} download>
          Download<span className="sr-only"> the backup of {when}</span>
        </a>
        <button
          type="button"
          className="shrink-0 text-now hover:underline"
          disabled={isBusy}
          onClick={onRestore}
        >
          Restore<span className="sr-only"> the backup of {when}</span>
        </button>
        <button type="button" className={button} disabled={isBusy} onClick={onRemove}>
          Remove<span className="sr-only"> the backup of {when}</span>
        </button>
      </span>
    </li>
  );
}
