'use client';
import { useEffect, useRef, useState } from 'react';
import type { AudioInput } from '@/audio/input/audioInput';
import type { Channel } from '@/audio/input/captureMessage';
import { movingChannel } from './channels';
import { Far } from './Far';

type Props = {
  rig: AudioInput;
  title: string;
  onChannel: (channel: Channel) => void;
  onStart: () => void;
  onBack: () => void;
};

const WIDTH = 766;
const TRACE = 160;

/** Nothing comes in before the count-in: each channel with its level, and which one moves. */
export function Waiting({ rig, title, onChannel, onStart, onBack }: Props) {
  const [levels, traces] = useTraces(rig);
  const chosen = rig.channel;
  const other = movingChannel(levels, chosen);
  const name = (index: number) => `input ${index + 1}`;
  return (
    <Far
      alert
      meta={<span>{title}, before the count-in</span>}
      soft={`Nothing comes in${typeof chosen === 'number' ? ` on ${name(chosen)}` : ''}.`}
      bold={other === null ? 'The count-in waits.' : `Your guitar is on ${name(other)}.`}
      press={
        other === null
          ? { words: 'start the count all the same', act: onStart }
          : { words: `use ${name(other)}`, act: () => onChannel(other) }
      }
      hold={{ words: 'back', act: onBack }}
      double={other === null ? undefined : { words: 'start the count all the same', act: onStart }}
    >
      <div className="mt-10 grid gap-6">
        {levels.map((level, index) => (
          <div
            key={index}
            className={`grid grid-cols-[110px_150px_1fr] items-center gap-x-6 border-l-[6px] py-4 pl-4 text-[24px] ${index === other ? 'border-now text-ink' : 'border-transparent text-soft'}`}
          >
            <span>{name(index)}</span>
            <span className="text-[36px] font-[640]">
              {level <= -119 ? 'silent' : String(Math.round(level)).replace('-', '−')}
              {level > -119 && <small className="ml-1 text-[18px] font-normal text-dim">dBFS</small>}
            </span>
            <svg viewBox={`0 0 ${WIDTH} 80`} className="w-full" aria-hidden="true">
              <path
                d={traces[index]}
                stroke={index === other || levels.length === 1 ? 'var(--h0)' : 'var(--h4)'}
                strokeWidth={2.5}
                fill="none"
              />
            </svg>
          </div>
        ))}
      </div>
      <p className="mt-8 text-[24px] leading-9 text-soft">
        It starts by itself <b className="text-ink">once two notes come in</b> on the chosen input.
        <br />
        If nothing moves: the volume on the guitar, the lead, the gain.
      </p>
    </Far>
  );
}

/** Levels of the channels and their last seconds as a trace. */
function useTraces(rig: AudioInput): [readonly number[], string[]] {
  const past = useRef<number[][]>([]);
  const [shown, setShown] = useState<[readonly number[], string[]]>([[rig.level], ['']]);
  useEffect(() => {
    const timer = setInterval(() => {
      const levels = rig.levels.length > 0 ? rig.levels : [rig.level];
      past.current = levels.map((level, index) => [...(past.current[index] ?? []), level].slice(-TRACE));
      setShown([
        levels,
        past.current.map((values) =>
          values
            .map((level, n) => {
              const half = Math.max(0, (level + 66) / 66) * 38;
              return `${n === 0 ? 'M' : 'L'}${((n / (TRACE - 1)) * WIDTH).toFixed(1)} ${(40 + (n % 2 ? half : -half)).toFixed(1)}`;
            })
            .join(''),
        ),
      ]);
    }, 50);
    return () => clearInterval(timer);
  }, [rig]);
  return shown;
}
