'use client';
import { Dialog } from 'radix-ui';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { useBackingSound, type BackingSound } from './useBackingSound';

type Found = { readonly tempo: number; readonly barOneSec: number; readonly bytes: ArrayBuffer };
type Props = { file: File; onClose: () => void; onUse: (found: Found) => void };

const NUDGE_SECONDS = 0.01;
const FACTORS = [
  ['half', 0.5],
  ['double', 2],
  ['two thirds', 2 / 3],
  ['three halves', 1.5],
] as const;

/**
 * Tempo and bar 1 of a backing: found by the machine, heard with clicks, tapped, nudged, and only then used.
 */
export function LineUpBacking({ file, onClose, onUse }: Props) {
  const sound = useBackingSound(file);
  const { state, tempo, barOne } = sound;
  useCommands({ 'backing.tap': { when: sound.heard, run: sound.tap } }, { inDialog: true });
  return (
    <Dialog.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-bg/80" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-30 w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 border-t-[3px] border-now bg-panel p-6"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-[25px] leading-8 font-[640]">{file.name}</Dialog.Title>
          <p role="status" className="mt-1 text-soft">
            {backingWords(sound)}
          </p>
          {state === 'ready' && (
            <>
              <Numbers sound={sound} />
              <Listening sound={sound} />
              <div className="mt-5 flex gap-3">
                <button
                  type="button"
                  className="go"
                  onClick={() => onUse({ tempo, barOneSec: barOne, bytes: sound.bytes() })}
                >
                  Play over it
                </button>
                <Dialog.Close className="quiet">Leave it</Dialog.Close>
              </div>
            </>
          )}
          {state === 'refused' && <Dialog.Close className="quiet mt-4">Choose another</Dialog.Close>}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Numbers({ sound }: { sound: BackingSound }) {
  const { tempo, setTempo, barOne, setBarOne, timesTempo, moveBarOne } = sound;
  return (
    <div className="mt-4 flex flex-wrap gap-x-8 gap-y-3">
      <label className="flex items-center gap-2 text-soft">
        Tempo{' '}
        <input
          className="field w-24"
          inputMode="decimal"
          value={tempo}
          onChange={(event) => setTempo(Number(event.target.value) || tempo)}
        />
      </label>
      <span className="flex gap-2">
        {FACTORS.map(([words, by]) => (
          <button key={words} type="button" className="quiet !px-2.5" onClick={() => timesTempo(by)}>
            {words}
          </button>
        ))}
      </span>
      <label className="flex items-center gap-2 text-soft">
        Bar 1 at{' '}
        <input
          className="field w-24"
          inputMode="decimal"
          value={barOne}
          onChange={(event) => setBarOne(Number(event.target.value) || 0)}
        />{' '}
        s
      </label>
      <span className="flex gap-2">
        <button type="button" className="quiet" onClick={() => moveBarOne(-NUDGE_SECONDS)}>
          10 ms earlier
        </button>
        <button type="button" className="quiet" onClick={() => moveBarOne(NUDGE_SECONDS)}>
          later
        </button>
        <button type="button" className="quiet" onClick={() => moveBarOne(60 / tempo)}>
          a beat later
        </button>
      </span>
    </div>
  );
}

function Listening({ sound }: { sound: BackingSound }) {
  const { heard, taps, stop, tap, playWithClicks, playForTaps } = sound;
  return (
    <>
      <div className="mt-4 flex flex-wrap gap-3">
        <button type="button" className="quiet text-ink" onClick={heard ? stop : playWithClicks}>
          {heard ? 'Stop' : 'Hear it with clicks'}
        </button>
        <button type="button" className="quiet text-ink" onClick={playForTaps}>
          Tap along <KeyOf command="backing.tap" className="ml-1" />
        </button>
        {heard && (
          <button type="button" className="quiet text-ink" onPointerDown={tap}>
            Tap{taps.length > 0 ? `, ${taps.length}` : ''}
          </button>
        )}
      </div>
      <p className="mt-2 text-sm text-dim">The first tap is bar 1; four are enough, more are surer.</p>
    </>
  );
}

function backingWords({ state, found }: BackingSound): string {
  if (state === 'reading') return 'Listening for its tempo and bar 1 …';
  if (state === 'refused') return 'This browser cannot read this file. WAV, MP3, FLAC and OGG usually work.';
  return found;
}
