import { readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Metadata } from 'next';
import { NoticesScreen } from '@/features/settings/NoticesScreen';

export const metadata: Metadata = { title: 'Notices' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  const file = path.join(process.cwd(), 'THIRD-PARTY-NOTICES.md');
  return <NoticesScreen text={await readFile(file, 'utf8')} />;
}
