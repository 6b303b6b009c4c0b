'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useLayoutEffect, useState } from 'react';
import { notify } from '@/ui/toast/toasts';
import { listenToMidi } from '../pedal';
import { preferences, usePreferences } from '../preferences';
import { closePanel, openPanel, usePanel } from './panels';
import { listenToKeyboard } from './keyboard';
import { useAppTheme } from '../useAppTheme';
import { useOfflinePage } from '../useOfflinePage';
import { startTour } from '../tour/tourState';
import { useCommands } from './useCommands';

// none is needed before it is asked for
const CommandPalette = dynamic(() => import('./CommandPalette').then((made) => made.CommandPalette));
const KeyList = dynamic(() => import('./KeyList').then((made) => made.KeyList));
const WordList = dynamic(() => import('../words/WordList').then((made) => made.WordList));

const sayReversed = () =>
  notify(
    'This pedal is closed at rest. From now on it is read the other way round: pressing it counts as a press.',
  );

/** Keys, pedals, the palette, the list of keys and the words, on every screen. */
export function CommandCenter() {
  const router = useRouter();
  const { midi } = usePreferences();
  const { other, choose } = useAppTheme();
  const panel = usePanel();
  const [wasOpen, setWasOpen] = useState(false);
  if (panel !== null && !wasOpen) setWasOpen(true);
  useLayoutEffect(() => listenToKeyboard(() => preferences().bindings, sayReversed), []);
  useMidi(midi);
  useOfflinePage();
  useCommands(
    {
      'app.palette': () => openPanel('palette'),
      'app.keys': () => openPanel('keys'),
      'app.words': () => openPanel('words'),
      'app.theme': () => choose(other),
      'app.today': () => router.push('/'),
      'app.charts': () => router.push('/charts'),
      'app.study': () => router.push('/study'),
      'app.record': () => router.push('/record'),
      'app.takes': () => router.push('/takes'),
      'app.setUp': () => router.push('/setup'),
      'app.stage': () => router.push('/stage'),
      'app.drills': () => router.push('/drills'),
      'app.phrases': () => router.push('/phrases'),
      'app.progress': () => router.push('/progress'),
      'app.week': () => router.push('/week'),
      'app.diary': () => router.push('/diary'),
      'app.settings': () => router.push('/settings'),
      'app.guide': () => router.push('/guide'),
      'app.tour': () => {
        startTour();
        router.push('/charts');
      },
    },
    { priority: -1 },
  );
  if (!wasOpen) return null;
  return (
    <>
      <CommandPalette open={panel === 'palette'} onClose={closePanel} />
      <KeyList open={panel === 'keys'} onClose={closePanel} />
      <WordList open={panel === 'words'} onClose={closePanel} />
    </>
  );
}

/** MIDI pedals, where the player asked for them. */
function useMidi(isOn: boolean): void {
  useEffect(() => {
    if (!isOn) return;
    let stop: (() => void) | null = null;
    let isGone = false;
    void listenToMidi().then((listening) => {
      if (isGone) listening?.stop();
      else stop = listening?.stop ?? null;
    });
    return () => {
      isGone = true;
      stop?.();
    };
  }, [isOn]);
}
