'use client';
import { isSlurred } from '@/core/shared';
import type { CommandId } from '../shell/commands/catalogue';
import { firstKey } from '../shell/commands/KeyOf';
import { usePreferences } from '../shell/preferences';
import type { Correcting } from './useCorrecting';

type ActionButton = {
  readonly command: CommandId;
  readonly name: string;
  readonly run: () => void;
};
type Props = { act: Correcting; hasDoubts: boolean; onAgain: () => void };

/** What can be done to the note under the hand; each sign is a button and the key that does the same. */
export function NoteActions({ act, hasDoubts, onAgain }: Props) {
  const { note } = act;
  const one = (command: CommandId, name: string, run: () => void): ActionButton => ({ command, name, run });
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-1.5 border-t border-line pt-2 text-[15px] text-soft">
      <Act
        words="re-pitch"
        disabled={!note}
        buttons={[
          one('review.correct.up', 'a half step up', () => act.pitch(1)),
          one('review.correct.down', 'a half step down', () => act.pitch(-1)),
        ]}
      />
      <Act words="add" buttons={[one('review.correct.add', 'add', act.add)]} />
      <Act
        words="take out"
        disabled={!note}
        buttons={[one('review.correct.remove', 'take out', act.remove)]}
      />
      <Act words="split" disabled={!note} buttons={[one('review.correct.split', 'split', act.split)]} />
      <Act
        words="start"
        disabled={!note}
        buttons={[
          one('review.correct.startEarlier', 'start earlier', () => act.start(-1)),
          one('review.correct.startLater', 'start later', () => act.start(1)),
        ]}
      />
      <Act
        words="join next"
        disabled={!note}
        buttons={[one('review.correct.join', 'join next', act.merge)]}
      />
      <Act
        words="end"
        disabled={!note}
        buttons={[
          one('review.correct.endEarlier', 'end earlier', () => act.end(-1)),
          one('review.correct.endLater', 'end later', () => act.end(1)),
        ]}
      />
      <Act
        words={note?.ghost ? 'a note again' : 'ghost'}
        disabled={!note}
        buttons={[one('review.correct.ghost', note?.ghost ? 'a note again' : 'ghost', act.ghost)]}
      />
      <Act
        words={isSlurred(note?.attack) ? 'picked' : 'slurred'}
        disabled={!note}
        buttons={[
          one(
            'review.correct.slur',
            isSlurred(note?.attack) ? 'picked' : 'slurred to the note before',
            act.slur,
          ),
        ]}
      />
      <Act
        words="move"
        disabled={!note}
        buttons={[
          one('review.correct.moveEarlier', 'move earlier', () => act.move(-1)),
          one('review.correct.moveLater', 'move later', () => act.move(1)),
        ]}
      />
      <Act words="play again" buttons={[one('review.correct.again', 'play the bar again', onAgain)]} />
      {hasDoubts && <Act words="next doubt" buttons={[one('review.correct.skip', 'next doubt', act.skip)]} />}
    </div>
  );
}

type ActProps = { words: string; buttons: readonly ActionButton[]; disabled?: boolean };

function Act({ words, buttons, disabled = false }: ActProps) {
  const { bindings } = usePreferences();
  return (
    <span className="flex items-center gap-2">
      {buttons.map(({ command, name, run }) => (
        <button
          key={command}
          type="button"
          disabled={disabled}
          aria-label={name}
          className="key hover:text-ink disabled:opacity-40"
          onClick={run}
        >
          {firstKey(bindings, command) ?? '·'}
        </button>
      ))}
      <span aria-hidden="true">{words}</span>
    </span>
  );
}
