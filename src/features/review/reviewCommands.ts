import { barStart } from '@/core/chart';
import type { Finding } from '@/core/findings';
import { elementAt } from '@/core/shared';
import { SPEEDS, type PlayerState, type TakePlayer } from '@/audio/playback/takePlayer';
import type { Handlers } from '../shell/commands/registry';
import { aroundBars, barsOfFormChange, barsRound, type FixAsked } from './places';
import { acrossChoruses, stepped, type SelectionKind } from './selection';
import { canKeep, phraseBorders } from './phraseBorders';
import type { ReviewModel } from './useReviewModel';

const SLOW = 0.5;
const BAND_LEVEL = 0.7;
const CLICK_LEVEL = 0.6;
/** A fix is heard from so many beats before its note to as many after. */
const FIX_BEATS = 4;

/** The next speed of the list, or the end of it. */
export function steppedSpeed(speed: number, by: 1 | -1): number {
  const at = SPEEDS.findIndex((one) => one >= speed - 1e-6);
  return elementAt(SPEEDS, Math.max(0, Math.min(SPEEDS.length - 1, at + by)));
}

/** What can be heard of a review. */
export function hearingOf(model: ReviewModel) {
  const { player, playing, span, shown, byId, judgement, formChanges, state } = model;
  const { report, timeline, places } = judgement;
  return {
    selected: () => {
      if (span) void player.play(span[0], null);
      else player.toggle();
    },
    loop: () => {
      if (playing.loop) return player.setLoop(null);
      if (!span) return;
      const round = aroundBars(span, timeline);
      void player.play(round[0], round);
    },
    fix: (fix: FixAsked | null) => {
      const note = fix && byId.get(elementAt(places, fix.noteIndex));
      if (!fix || !note) return;
      const { onsetBeat } = elementAt(report.notes, fix.noteIndex);
      void player.playPatched(Math.max(-FIX_BEATS, onsetBeat - FIX_BEATS), onsetBeat + FIX_BEATS, {
        onsetSec: note.onsetSec,
        offsetSec: note.offsetSec,
        semitones: fix.toMidi - Math.round(note.midi + (note.cents ?? 0) / 100),
      });
    },
    finding: (index: number) => {
      const round = barsRound(shown[index]?.where.bars ?? [], timeline);
      if (round) void player.play(round[0], round);
    },
    bar: (throughBar: number) => {
      const round = [barStart(timeline, throughBar), barStart(timeline, throughBar + 1)] as const;
      void player.play(round[0], round);
    },
    formChange: (index: number) => {
      const next = Math.max(0, Math.min(formChanges.length - 1, index));
      model.dispatch({ type: 'set', change: { formChange: next } });
      const change = formChanges[next];
      if (change) void player.play(Math.max(0, change.beat - 2), null);
    },
    loopFormChange: () => {
      const change = formChanges[state.formChange];
      if (!change) return;
      const [first, last] = barsOfFormChange(change);
      const round = [barStart(timeline, first), barStart(timeline, last + 1)] as const;
      void player.play(round[0], round);
    },
  };
}

const mixCommands = (player: TakePlayer, { levels, speed }: PlayerState): Handlers => ({
  'review.slower': () => player.setSpeed(steppedSpeed(speed, -1)),
  'review.faster': () => player.setSpeed(steppedSpeed(speed, 1)),
  'review.take': () => player.setLevels({ take: levels.take > 0 ? 0 : 1 }),
  'review.band': () => player.setLevels({ band: levels.band > 0 ? 0 : BAND_LEVEL }),
  'review.click': () => player.setLevels({ click: levels.click > 0 ? 0 : CLICK_LEVEL }),
});

function formCommands(model: ReviewModel): Handlers {
  const { dispatch, current, fix, judgement, player, select, shown, state } = model;
  const { report, timeline } = judgement;
  const hear = hearingOf(model);
  const borders = phraseBorders(model);
  const step = (kind: SelectionKind, by: 1 | -1) => () =>
    select(stepped(current, kind, by, report, timeline));
  const across = (by: 1 | -1) => ({
    when: current !== null,
    run: () => select(acrossChoruses(current, by, report, timeline)),
  });
  const finding = (index: number) => ({ when: index < shown.length, run: () => hear.finding(index) });
  return {
    'review.form.play': () => player.toggle(),
    'review.form.hear': hear.selected,
    'review.form.clear': {
      when: state.zoomed || current !== null || state.kind !== null,
      run: () => dispatch({ type: 'escape' }),
    },
    'review.form.nextNote': step('note', 1),
    'review.form.previousNote': step('note', -1),
    'review.form.nextChange': step('change', 1),
    'review.form.previousChange': step('change', -1),
    'review.form.nextFigure': step('figure', 1),
    'review.form.previousFigure': step('figure', -1),
    'review.form.nextPhrase': step('phrase', 1),
    'review.form.previousPhrase': step('phrase', -1),
    'review.form.nextChorus': step('chorus', 1),
    'review.form.previousChorus': step('chorus', -1),
    'review.form.chorusLater': across(1),
    'review.form.chorusEarlier': across(-1),
    'review.form.loop': hear.loop,
    'review.form.fix': { when: fix !== null, run: () => hear.fix(fix) },
    'review.form.splitPhrase': { when: borders.canSplit, run: borders.split },
    'review.form.joinPhrase': { when: borders.canJoin, run: borders.join },
    'review.form.keepPhrase': {
      when: current?.kind === 'phrase' && canKeep(report, current.index),
      run: () => current && model.keepPhrase(current.index),
    },
    'review.form.drawBy': () => dispatch({ type: 'toggleDrawBy' }),
    'review.form.zoom': () => dispatch({ type: 'toggleZoom' }),
    'review.form.finding1': finding(0),
    'review.form.finding2': finding(1),
    'review.form.finding3': finding(2),
  };
}

function correctCommands(model: ReviewModel): Handlers {
  const { act, dispatch, judgement, player, playing, span } = model;
  const hear = hearingOf(model);
  const loopSlowly = () => {
    if (playing.phase !== 'idle') return player.pause();
    const beat = Math.max(0, span?.[0] ?? player.beat);
    const round = aroundBars([beat, beat + 1], judgement.timeline);
    player.setSpeed(SLOW);
    void player.play(round[0], round);
  };
  return {
    'review.correct.play': loopSlowly,
    'review.correct.accept': act.doubt ? act.accept : hear.selected,
    'review.correct.other': { when: act.doubt !== undefined, run: act.other },
    'review.correct.skip': act.skip,
    'review.correct.next': act.next,
    'review.correct.previous': act.previous,
    'review.correct.settle': act.doubt ? act.accept : act.next,
    'review.correct.settleOther': act.doubt ? act.other : act.previous,
    'review.correct.up': () => act.pitch(1),
    'review.correct.down': () => act.pitch(-1),
    'review.correct.remove': act.remove,
    'review.correct.startEarlier': () => act.start(-1),
    'review.correct.startLater': () => act.start(1),
    'review.correct.endEarlier': () => act.end(-1),
    'review.correct.endLater': () => act.end(1),
    'review.correct.moveEarlier': () => act.move(-1),
    'review.correct.moveLater': () => act.move(1),
    'review.correct.add': act.add,
    'review.correct.split': act.split,
    'review.correct.join': act.merge,
    'review.correct.ghost': act.ghost,
    'review.correct.slur': act.slur,
    'review.correct.again': () => playAgain(model),
    'review.correct.close': () => dispatch({ type: 'view', view: 'form' }),
  };
}

/** The bar under the hand, with the band: the take itself is silent meanwhile. */
export function playAgain({ player, dispatch }: ReviewModel): void {
  player.pause();
  dispatch({ type: 'set', change: { isPlayingAgain: true } });
}

/** Stops the sound and goes back to the form. */
export function leaveFar({ player, dispatch }: ReviewModel): void {
  player.pause();
  dispatch({ type: 'view', view: 'form' });
}

function farCommands(model: ReviewModel): Handlers {
  const hear = hearingOf(model);
  const { formChange } = model.state;
  return {
    'review.far.next': () => hear.formChange(formChange + 1),
    'review.far.previous': () => hear.formChange(formChange - 1),
    'review.far.loop': hear.loopFormChange,
    'review.far.back': () => leaveFar(model),
  };
}

function commandsOfView(model: ReviewModel): Handlers {
  if (model.state.view === 'far') return farCommands(model);
  return model.state.view === 'correct' ? correctCommands(model) : formCommands(model);
}

/** What can be done in a review as it stands now. */
export function reviewCommands(model: ReviewModel): Handlers {
  const { corrections, dispatch, drill, player, playing, shown, state } = model;
  if (state.isPlayingAgain) return {};
  const first: Finding | undefined = shown[0];
  return {
    'review.drill': { when: first !== undefined, run: () => first && drill(first) },
    'review.undo': { when: corrections.edits.length > 0, run: corrections.undo },
    'review.redo': { when: corrections.undone.length > 0, run: corrections.redo },
    'review.nextView': () => dispatch({ type: 'stepView', by: 1 }),
    'review.previousView': () => dispatch({ type: 'stepView', by: -1 }),
    'review.standBack': () => dispatch({ type: 'standBack' }),
    ...mixCommands(player, playing),
    ...commandsOfView(model),
  };
}
