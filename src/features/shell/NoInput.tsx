'use client';
import { useEffect, useState } from 'react';
import { listDevices, type InputInfo, type InputTrouble } from '@/audio/input/device';
import { KeyOf } from './commands/KeyOf';
import { useCommands } from './commands/useCommands';
import { Far } from './Far';

const WORDS: Record<InputTrouble, [string, string]> = {
  refused: ['The microphone stays closed.', 'Open it, or choose another way to play.'],
  none: ['No input was found.', 'Plug one in, or choose another way to play.'],
  busy: ['The input is in use elsewhere.', 'Close that program, or choose another way to play.'],
  unsupported: ['This browser gives no sound to pages.', 'Choose another way to play.'],
};

const WAY_COMMANDS = ['input.first', 'input.second', 'input.third', 'input.fourth', 'input.fifth'] as const;

type Props = {
  trouble: InputTrouble;
  title: string;
  onAgain: () => void;
  onDevice: (deviceId: string) => void;
  /** Where a recording may come in too. */ onFile?: () => void;
  onStandIn: () => void;
  onBack: () => void;
};

/** The input could not be opened: every other way in, each under its number. */
export function NoInput(props: Props) {
  const { trouble, title, onAgain, onStandIn, onBack } = props;
  const ways = waysIn(props, useInputs());
  useCommands(
    Object.fromEntries(
      WAY_COMMANDS.map((id, index) => {
        const way = ways[index];
        return [id, way && { label: `${way.name}: ${way.words}`, run: way.act }];
      }),
    ),
  );
  const [soft, bold] = WORDS[trouble];
  return (
    <Far
      alert
      meta={<span>{title}, before the count-in</span>}
      soft={soft}
      bold={bold}
      press={{ words: 'ask the browser again', act: onAgain }}
      hold={{ words: 'back', act: onBack }}
      double={{ words: 'let the stand-in player sit in', act: onStandIn }}
    >
      <ul className="mt-12 border-b border-line">
        {ways.map(({ name, words, act }, index) => (
          <li key={name} className="border-t border-line">
            <button
              type="button"
              onClick={act}
              className="flex w-full flex-wrap items-baseline gap-x-7 py-3.5 text-left text-[22px] leading-9 hover:bg-row sm:text-[26px]"
            >
              <KeyOf command={WAY_COMMANDS[index] ?? 'input.first'} className="!min-w-9 !py-2 !text-[18px]" />
              <b>{name}</b>
              <span className="text-soft">{words}</span>
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-7 text-[22px] text-soft">
        Your choice is remembered for this computer. Sound never leaves it.
      </p>
    </Far>
  );
}

/** Inputs of this computer, asked again when one is plugged in or out. */
function useInputs(): readonly InputInfo[] {
  const [inputs, setInputs] = useState<readonly InputInfo[]>([]);
  useEffect(() => {
    const look = () =>
      void listDevices('audioinput')
        .then(setInputs)
        .catch(() => undefined);
    look();
    navigator.mediaDevices?.addEventListener?.('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener?.('devicechange', look);
  }, []);
  return inputs;
}

type WayIn = { readonly name: string; readonly words: string; readonly act: () => void };

function waysIn(props: Props, inputs: readonly InputInfo[]): WayIn[] {
  const { trouble, onAgain, onDevice, onFile, onStandIn } = props;
  const isRefused = trouble === 'refused';
  const others = inputs.slice(0, 2).map(({ deviceId, label }) => ({
    name: label,
    words: 'another input of this computer',
    act: () => onDevice(deviceId),
  }));
  const recording = {
    name: 'A recording',
    words: 'any sound file this browser plays; it is judged like a take',
  };
  return [
    isRefused
      ? {
          name: 'Open it',
          words: 'the sign at the left of the address line, then Microphone, Allow',
          act: onAgain,
        }
      : { name: 'Look again', words: 'once it is plugged in and free', act: onAgain },
    ...(isRefused ? [] : others),
    ...(onFile ? [{ ...recording, act: onFile }] : []),
    {
      name: 'The stand-in player',
      words: 'sits down in your place and improvises over the same form',
      act: onStandIn,
    },
  ];
}
