import type { Metadata } from 'next';
import { version } from '../../../package.json';
import { SettingsScreen } from '@/features/settings/SettingsScreen';
import { spaceUsed } from '@/server/audio';
import { readSoundSettings } from '@/server/settings';
import { backupFolder, DELETE_WORDS, listBackups } from '@/server/backup';
import { isFileDatabase } from '@/server/db/client';
import { readTrash } from '@/server/trash';

export const metadata: Metadata = { title: 'Settings' };

export default async function Settings() {
  const [{ keepDays }, space, trash, backups] = await Promise.all([
    readSoundSettings(),
    spaceUsed(),
    readTrash(),
    isFileDatabase() ? listBackups() : null,
  ]);
  return (
    <SettingsScreen
      keepDays={keepDays}
      space={space}
      trash={trash}
      backups={backups && { folder: backupFolder(), backups }}
      deleteWords={DELETE_WORDS}
      version={version}
    />
  );
}
