import type { CalibrationFailure } from '@/audio/input/calibrator';
import type { PlayTrouble } from '@/audio/playback/takePlayer';
import type { SessionState, SessionTrouble } from '@/audio/sessionState';

/** What a player reads where a take could not begin or end. */
export function takeTroubleWords(trouble: SessionTrouble): string {
  switch (trouble.kind) {
    case 'said':
      return trouble.words;
    case 'second-take':
      return 'Another take is being recorded in another tab. Finish that one first.';
    case 'no-input':
      return 'The input is not open. Choose it again under I.';
    case 'band':
      return 'The band could not be prepared. Try again; if it keeps failing, reload the page.';
    case 'nothing-recorded':
      return 'Nothing was recorded: the take ended before the first sound came in.';
    case 'not-finished':
      return 'The take could not be finished. What was recorded is safe and is offered again here.';
  }
}

/** What a running take is busy with before its count-in and after its last bar; null while it runs. */
export function busyWords(phase: SessionState['phase']): string | null {
  if (phase === 'opening') return 'Preparing the band';
  if (phase === 'finishing') return 'Saving the last notes';
  return null;
}

/** Why the latency could not be measured, and what to try. */
export function calibrationWords(reason: CalibrationFailure): string {
  switch (reason.kind) {
    case 'no-input':
      return 'Open an input first.';
    case 'clicks-unheard':
      return 'The clicks were not heard. Turn the output up, hold the headphones against the pickup or microphone, or run a cable from output to input.';
    case 'clicks-disagree':
      return 'The clicks do not agree: something else is sounding, or the device changes its delay. Keep the strings still and try again.';
    case 'claps-scattered':
      return `The claps are ${reason.spreadMs} ms apart from each other: too far to measure. Try again, right with the click.`;
    case 'claps-unheard':
      return 'Too few claps were heard. Clap near the microphone, or strike muted strings, once with every click after the first four.';
  }
}

export const playTroubleWords = (trouble: PlayTrouble): string =>
  trouble === 'sound-unopened'
    ? 'The sound of this take could not be opened.'
    : 'This note could not be moved for listening.';
