'use client';
import { KeyOf } from './KeyOf';
import { openPanel } from './panels';

/** Opens the palette. */
export const FindButton = () => (
  <button
    type="button"
    className="hidden items-center gap-1.5 hover:text-ink md:flex"
    onClick={() => openPanel('palette')}
  >
    <KeyOf command="app.palette" />
    find
  </button>
);

/** Opens the list of keys. */
export const KeysButton = () => (
  <button
    type="button"
    className="hidden items-center gap-1.5 hover:text-ink sm:flex"
    onClick={() => openPanel('keys')}
  >
    <KeyOf command="app.keys" />
    keys
  </button>
);

/** Explains the musical terms of the screen. */
export const WordsButton = () => (
  <button
    type="button"
    className="hidden items-center gap-1.5 hover:text-ink lg:flex"
    onClick={() => openPanel('words')}
  >
    <KeyOf command="app.words" />
    words
  </button>
);
