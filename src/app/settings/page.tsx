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
  return (
    <SettingsScreen
      keepDays={(await readSoundSettings()).keepDays}
      space={await spaceUsed()}
      trash={await readTrash()}
      backups={isFileDatabase() ? { folder: backupFolder(), backups: await listBackups() } : null}
      deleteWords={DELETE_WORDS}
      version={version}
    />
  );
}
