'use client';
import { getNonce } from 'get-nonce';
import { Select as Radix } from 'radix-ui';
import type { ComponentProps } from 'react';

export type MenuProps = {
  /** The button's name, look and words. */
  trigger: Pick<ComponentProps<'button'>, 'aria-label' | 'className' | 'children'>;
  /** Which option is chosen, −1 for none. */
  place: number;
  words: readonly string[];
  disabled: boolean;
  onChoose: (place: number) => void;
};

/** The list of a `Select`, open from the start: it is loaded when it is first wanted. */
export default function SelectMenu({ trigger, place, words, disabled, onChoose }: MenuProps) {
  return (
    <Radix.Root
      defaultOpen
      value={place < 0 ? '' : String(place)}
      onValueChange={(chosen) => {
        if (chosen !== '') onChoose(Number(chosen));
      }}
      disabled={disabled}
    >
      <Radix.Trigger {...trigger} />
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={3}
          collisionPadding={8}
          className="z-40 max-h-[min(420px,var(--radix-select-content-available-height))] min-w-(--radix-select-trigger-width) overflow-y-auto border border-line bg-panel py-1 text-[16px] text-ink shadow-lg"
        >
          <Radix.Viewport nonce={getNonce()}>
            {words.map((one, index) => (
              <Radix.Item
                key={`${index} ${one}`}
                value={String(index)}
                className="cursor-default px-3 py-1.5 outline-none select-none data-highlighted:bg-row data-[state=checked]:font-[640] data-[state=checked]:text-now"
              >
                <Radix.ItemText>{one}</Radix.ItemText>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
