'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { keepBacking, listBackings, removeBacking, type BackingName } from '@/audio/band/backings';
import { newTakeId } from '@/audio/persistence/serverTakes';
import { ChoiceSetting } from '@/ui/Field';
import { LineUpBacking } from './LineUpBacking';

type Props = { chartId: string; chosen: string | null; onChoose: (backing: BackingName | null) => void };

/** The band, or a backing of the player's own in its place. */
export function OwnBacking({ chartId, chosen, onChoose }: Props) {
  const [own, setOwn] = useState<readonly BackingName[]>([]);
  const [file, setFile] = useState<File | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const look = useCallback(
    () =>
      void listBackings()
        .then((all) => setOwn(all.filter((one) => one.chartId === chartId)))
        .catch(() => setOwn([])),
    [chartId],
  );
  useEffect(look, [look]);
  return (
    <>
      <ChoiceSetting
        name="Played by"
        value={chosen ?? 'band'}
        choices={[
          ['band', 'the band'],
          ...own.map(({ id, name }) => [id, name] as const),
          ['bring', 'a backing of your own …'],
        ]}
        onChange={(one) =>
          one === 'bring' ? input.current?.click() : onChoose(own.find(({ id }) => id === one) ?? null)
        }
      />
      {chosen !== null && (
        <button
          type="button"
          className="ml-[130px] text-sm text-soft underline hover:text-ink"
          onClick={() =>
            void removeBacking(chosen).then(() => {
              onChoose(null);
              look();
            })
          }
        >
          Remove this backing
        </button>
      )}
      <input
        ref={input}
        type="file"
        accept="audio/*,.wav,.mp3,.flac,.ogg,.m4a"
        className="sr-only"
        aria-label="Backing of your own"
        tabIndex={-1}
        onChange={(event) => {
          setFile(event.target.files?.[0] ?? null);
          event.target.value = '';
        }}
      />
      {file && (
        <LineUpBacking
          file={file}
          onClose={() => setFile(null)}
          onUse={(found) => {
            const one = { id: newTakeId(), chartId, name: file.name.slice(0, 80), ...found };
            void keepBacking(one).then(() => {
              setFile(null);
              look();
              onChoose(one);
            });
          }}
        />
      )}
    </>
  );
}
