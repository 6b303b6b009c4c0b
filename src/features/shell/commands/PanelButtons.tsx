'use client';
import type { CommandId } from './catalogue';
import { KeyOf } from './KeyOf';
import { openPanel, type Panel } from './panels';

type Props = { panel: Panel; command: CommandId; words: string; className: string };

/** Opens a panel, with its key. */
const PanelButton = ({ panel, command, words, className }: Props) => (
  <button
    type="button"
    className={`hidden items-center gap-1.5 hover:text-ink ${className}`}
    onClick={() => openPanel(panel)}
  >
    <KeyOf command={command} />
    {words}
  </button>
);

/** The palette, the list of keys, the words of the screen: as many as there is room for. */
export const PanelButtons = () => (
  <>
    <PanelButton panel="palette" command="app.palette" words="find" className="md:flex" />
    <PanelButton panel="keys" command="app.keys" words="keys" className="sm:flex" />
    <PanelButton panel="words" command="app.words" words="words" className="lg:flex" />
  </>
);
