'use client';
import type { CommandId } from './catalogue';
import { KeyOf } from './KeyOf';
import { openPanel, type Panel } from './panels';

type Props = { panel: Panel; command: CommandId; words: string; className: string; isTight: boolean };

/** Opens a panel, with its key. */
const PanelButton = ({ panel, command, words, className, isTight }: Props) => (
  <button
    type="button"
    className={`hidden items-center gap-1.5 hover:text-ink ${className}`}
    onClick={() => openPanel(panel)}
  >
    <span className="max-sm:hidden">
      <KeyOf command={command} />
    </span>
    <span className={isTight ? 'sm:sr-only min-[1440px]:not-sr-only' : ''}>{words}</span>
  </button>
);

/**
 * The palette, the list of keys, the words of the screen: as many as there is room for; on a phone the words, for
 * it has no keys.
 * @param props.isTight keys alone, where something else stands beside them
 */
export const PanelButtons = ({ isTight }: { isTight: boolean }) => (
  <>
    <PanelButton panel="palette" command="app.palette" words="find" className="md:flex" isTight={isTight} />
    <PanelButton panel="keys" command="app.keys" words="keys" className="sm:flex" isTight={isTight} />
    <PanelButton
      panel="words"
      command="app.words"
      words="words"
      className="max-sm:flex lg:flex"
      isTight={isTight}
    />
  </>
);
