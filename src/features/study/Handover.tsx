import { handovers, underHand, type Instrument } from '@/core/neck';
import { intervalOver, noteName, spellOver } from '@/core/music';
import { typeset } from '@/core/music';
import { NeckMap, type NeckArrow, type NeckMark } from '@/ui/neck/NeckMap';
import { intervalLabel } from '@/ui/intervalLabel';
import { nextChange, type Study } from './studyView';
import { elementAt } from '@/core/shared';

export type NeckLayer = 'shape' | 'scale' | 'plan';

type Props = {
  study: Study;
  index: number;
  position: number;
  instrument: Instrument;
  leftHanded: boolean;
  layer: NeckLayer;
};

/**
 * Under one hand: the tones of the chord with their intervals, and where the next chord's targets lie: an
 * arrow from the nearest tone, a ring where a
 * finger stays.
 */
export function Handover({ study, index, position, instrument, leftHanded, layer }: Props) {
  const cell = elementAt(study.cells, index);
  const next = nextChange(study, index);
  const { chord } = cell;
  if (!chord) return <p className="text-soft">No chord sounds here.</p>;
  const home = elementAt(study.plan.homeScales, index);
  const tones = chord.tones.map((tone) => tone.pc);
  const targets = next.index === index ? [] : next.plan.targets;
  const arrows = handovers(tones, targets, position, instrument);
  const stays = arrows.filter(({ frets }) => frets === 0);
  const marks = new Map<string, NeckMark>();
  const put = (mark: NeckMark) => marks.set(`${mark.string} ${mark.fret}`, mark);
  let wider: readonly number[];
  if (layer === 'scale') wider = cell.reading?.scale.pcs ?? [];
  else if (layer === 'plan') wider = cell.plan.material;
  else wider = [];
  for (const { string, fret } of underHand(wider, position, instrument))
    put({ string, fret, label: '', look: 'scale' });
  for (const { string, fret, midi } of underHand(targets, position, instrument))
    put({
      string,
      fret,
      label: next.chord ? typeset(noteName(spellOver(next.chord, midi % 12))) : '',
      look: 'target',
    });
  for (const { string, fret, midi } of underHand(tones, position, instrument))
    put({
      string,
      fret,
      label: intervalLabel(intervalOver(chord, midi % 12)),
      look: home.pcs.includes(midi % 12) ? 'tone' : 'lacks',
      ring: stays.some(({ to }) => to.string === string && to.fret === fret),
    });
  const moves: NeckArrow[] = arrows
    .filter(({ frets }) => frets !== 0)
    .map(({ from, to }) => ({ string: to.string, from: from.fret, to: to.fret }));
  const last = Math.min(instrument.frets, position + (position >= 7 ? 5 : 4));
  return (
    <NeckMap
      tuning={instrument.tuning}
      from={position}
      to={last}
      marks={[...marks.values()]}
      arrows={moves}
      leftHanded={leftHanded}
      width={600}
      gap={22}
      size={13}
      names
      label={`Frets ${position} to ${last}: ${typeset(chord.symbol)}, then ${next.chord ? typeset(next.chord.symbol) : 'no chord'}`}
    />
  );
}
