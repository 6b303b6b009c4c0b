import { headers } from 'next/headers';
import { datesIn, languageOf, type Dates } from '@/presentation';

/** The language whose dates the browser asks for. */
export const languageOfRequest = async (): Promise<string> =>
  languageOf((await headers()).get('accept-language'));

export const datesOfRequest = async (): Promise<Dates> => datesIn(await languageOfRequest());
