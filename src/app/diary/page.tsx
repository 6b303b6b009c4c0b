import type { Metadata } from 'next';
import { DiaryScreen } from '@/features/progress/DiaryScreen';
import { datesOfRequest } from '@/server/datesOfRequest';
import { diaryWeeks } from '@/server/diary';

export const metadata: Metadata = { title: 'Diary' };
export const dynamic = 'force-dynamic';

export default async function DiaryPage() {
  return <DiaryScreen {...await diaryWeeks(await datesOfRequest())} />;
}
