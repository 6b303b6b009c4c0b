import { readJson } from '@/server/body';
import { Failure } from '@/server/failure';
import { respond } from '@/server/respond';
import { daySchema } from '@/core/formats';
import { diaryBody } from '@/server/validation';
import { keepDiary } from '@/server/diary';

/** The player's words on a day. */
export const PUT = (request: Request, { params }: { params: Promise<{ day: string }> }): Promise<Response> =>
  respond(async () => {
    const { error, value } = daySchema.validate((await params).day);
    if (error) throw new Failure(422, { code: 'diary.day', message: 'A day is written like 2026-11-26.' });
    return keepDiary(value as string, (await readJson(request, diaryBody)).text);
  });
