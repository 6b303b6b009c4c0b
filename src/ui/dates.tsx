'use client';
import { createContext, useContext, type ReactNode } from 'react';
import { datesIn, USUAL_LANGUAGE, type Dates } from '@/presentation';

const Language = createContext(USUAL_LANGUAGE);

/** Says in which language dates are written: the same on the server and in the browser. */
export function DatesIn({ language, children }: { language: string; children: ReactNode }) {
  return <Language.Provider value={language}>{children}</Language.Provider>;
}

/** Days and times as the player's browser wants them. */
export const useDates = (): Dates => datesIn(useContext(Language));
