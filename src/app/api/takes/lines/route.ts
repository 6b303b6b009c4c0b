import { datesIn, languageOf } from '@/presentation';
import { Failure } from '@/server/failure';
import { respond } from '@/server/respond';
import { rowsOf } from '@/app/takes/rows';
import { takesQuery } from '@/server/validation';
import { elementAt } from '@/core/shared';

/** A stretch of the list of takes, newest first: `?from=&most=` and what they are chosen by. */
export const GET = (request: Request): Promise<Response> =>
  respond(async () => {
    const { error, value } = takesQuery.validate(Object.fromEntries(new URL(request.url).searchParams), {
      convert: true,
    });
    if (error)
      throw new Failure(422, {
        code: 'takes.query',
        message: `Takes cannot be chosen like this: ${elementAt(error.details, 0).message}.`,
        path: elementAt(error.details, 0).path.join('.'),
      });
    return rowsOf(value, datesIn(languageOf(request.headers.get('accept-language'))));
  });
