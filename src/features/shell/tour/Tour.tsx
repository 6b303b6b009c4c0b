'use client';
import 'driver.js/dist/driver.css';
import type { PopoverDOM } from 'driver.js';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useSyncExternalStore } from 'react';
import { useCommands } from '../commands/useCommands';
import { endTour, noteTake, onTourChanged, STEPS, tourNow } from './tourState';
import { detour, nextStep, TOUR } from './tourSteps';
import { whenThere } from './whenThere';

/** Shows the round of a first visit: one thing lit, what it is, and one way on. Hands free by the pedal. */
export function Tour() {
  const router = useRouter();
  const path = usePathname();
  const tour = useSyncExternalStore(onTourChanged, tourNow, () => null);
  const step = tour ? STEPS[tour.step] : undefined;
  const isHere = step !== undefined && TOUR[step].on.test(path);
  const goOn = () => step && nextStep(step, (to) => router.push(to));
  useEffect(() => {
    noteTake(path);
    const other = step && detour(step, path);
    if (other) router.replace(other);
  }, [path, step, router]);
  useEffect(() => {
    if (!isHere || !step) return;
    TOUR[step].enter?.();
    return showStep(step, () => nextStep(step, (to) => router.push(to)));
  }, [isHere, step, router]);
  useCommands(isHere ? { 'tour.next': goOn, 'tour.end': endTour } : {}, {
    priority: 10,
    inDialog: true,
  });
  return null;
}

/**
 * The package's header and footer are no landmarks of the page; Enter and the pedal's keys go on, though the
 * package begins at its first button.
 */
function dress({ title, footer, nextButton }: PopoverDOM): void {
  title.setAttribute('role', 'none');
  footer.setAttribute('role', 'group');
  setTimeout(() => nextButton.focus());
}

/** Lights what a step points at as soon as it is there. @returns how to put the light out */
function showStep(step: (typeof STEPS)[number], onNext: () => void): () => void {
  const { target, side, title, words, next, other } = TOUR[step];
  const number = Math.min(STEPS.indexOf(step) + 1, STEPS.length - 1);
  let putOut: (() => void) | null = null;
  let isGone = false;
  const stop = whenThere(target, async (element) => {
    const { driver } = await import('driver.js');
    if (isGone) return;
    const light = driver({
      allowKeyboardControl: false,
      allowClose: false,
      popoverClass: 'tour',
      overlayColor: 'black',
      overlayOpacity: 0.55,
      stagePadding: 8,
      stageRadius: 4,
      smoothScroll: false,
      animate: !matchMedia('(prefers-reduced-motion: reduce)').matches,
    });
    light.highlight({
      element,
      popover: {
        title,
        ...(side && { side, align: 'start' }),
        description: words,
        showButtons: ['next', 'previous'],
        nextBtnText: next,
        prevBtnText: other?.words ?? 'End the tour',
        showProgress: true,
        progressText: `${number} of ${STEPS.length - 1}`,
        onPopoverRender: dress,
        onNextClick: onNext,
        onPrevClick: other?.run ?? endTour,
      },
    });
    putOut = () => light.destroy();
  });
  return () => {
    isGone = true;
    stop();
    putOut?.();
  };
}
