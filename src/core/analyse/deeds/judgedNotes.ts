import { cellAt, type Plan } from '../../plan';
import { soundingFor, type Scene } from '../chord/belonging';
import type { Heard } from '../notes/events';
import type { Figure, Walk } from './figures';
import type { Deed } from './functions';
import {
  baseTier,
  isChromatic,
  neutralInterval,
  printedInterval,
  voiceTier,
  type Ground,
} from '../chord/ground';
import type { JudgedNote, NoteReport } from './noteReport';
import { spansOf } from '../chord/spans';
import { HEIGHT, isLinked, type Belonging, type Flag, type Tier, type Voice } from '../notes/voice';

/** What judging one note asks for. `pickups` are the notes that make their figure a pickup, `until` the beat after the last chorus. */
export type NoteContext = {
  readonly scene: Scene;
  readonly plan: Plan;
  readonly heard: Heard;
  readonly belongings: readonly Belonging[];
  readonly deeds: readonly Deed[];
  readonly figures: ReadonlyMap<number, readonly Figure[]>;
  readonly walk: Walk;
  readonly pickups: ReadonlySet<number>;
  readonly until: number;
};

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

/**
 * One voice with its chord, interval, tier, height, function and flags.
 * Rule: 2-theory, "Tier and height": "Depend on note, chord and key alone, never on the plan … A `blue` note is never above 2."
 */
export function judgeNote(context: NoteContext, voice: Voice): JudgedNote {
  const { scene, plan, belongings } = context;
  const belonging = voice.grace ? lentBelonging(context, voice) : belongings[voice.event]!;
  const { stretch, chorus, start } = belonging.sounding;
  const ground = scene.grounds[stretch.index]!;
  const deed = deedOf(context, voice, ground, belonging);
  const blue = isBlue(ground, voice);
  const tier: Tier = blue && HEIGHT[deed.tier] > 2 ? 'scale' : deed.tier;
  const { spans, stretches } = spansOf(scene, voice, belonging, HEIGHT[tier], context.until);
  const note: Mutable<NoteReport> = {
    index: voice.index,
    onsetBeat: voice.onset,
    durationBeats: voice.end - voice.onset,
    midi: voice.played.midi,
    event: voice.event,
    top: voice.top,
    chord: belonging.chord?.symbol ?? null,
    interval: printedInterval(ground, voice),
    tier,
    height: HEIGHT[tier],
    inPlan: cellAt(plan, stretch.index, chorus).material.includes(voice.pc),
    function: deed.name,
    flags: flagsOf(context, voice, belonging, deed, blue),
    spans,
  };
  if (isChromatic(ground, voice.pc)) note.chromatic = true;
  if (deed.appoggiatura) note.appoggiatura = true;
  if (voice.from !== undefined) note.from = voice.from;
  if (deed.target !== undefined) note.targetIndex = scene.line[deed.target]!.index;
  return { note, voice, homeStart: start, stretches };
}

/** A grace belongs where the note it leads to belongs. */
const lentBelonging = ({ scene, belongings }: NoteContext, voice: Voice): Belonging =>
  belongings[voice.event] ?? {
    sounding: soundingFor(scene, voice.onset),
    chord: null,
    anticipates: false,
    leadIn: false,
  };

/** Inner voices and graces are named by their tier alone: they are no part of the line. */
function deedOf({ deeds, plan }: NoteContext, voice: Voice, ground: Ground, belonging: Belonging): Deed {
  if (voice.top) return deeds[voice.event]!;
  const base = voiceTier(ground, voice);
  if (voice.grace) return { name: 'grace', tier: base === 'outside' ? 'approach' : base };
  if (base !== 'chord') return { name: base, tier: base };
  const { targets } = cellAt(plan, belonging.sounding.stretch.index, belonging.sounding.chorus);
  return { name: targets.includes(voice.pc) ? 'target' : 'chord-tone', tier: 'chord' };
}

/** ♭3, ♭5 or ♭7 of the key on a blues against a chord whose own tone lies a semitone higher; anywhere, a neutral pitch. */
function isBlue(ground: Ground, voice: Voice): boolean {
  if (neutralInterval(ground, voice) !== null) return true;
  const bluesy = ground.home.kind === 'blues';
  const step = (voice.pc - ground.tonic + 12) % 12;
  if (!bluesy || !ground.chord || ![3, 6, 10].includes(step) || baseTier(ground, voice.pc) === 'chord')
    return false;
  return ground.chord.tones.some(
    (tone) => ['third', 'fifth', 'seventh'].includes(tone.role) && tone.pc === (voice.pc + 1) % 12,
  );
}

function flagsOf(
  context: NoteContext,
  voice: Voice,
  belonging: Belonging,
  deed: Deed,
  blue: boolean,
): Flag[] {
  const flags: Flag[] = [];
  const { scene, figures, pickups } = context;
  const place = voice.event;
  const own = voice.top ? (figures.get(place) ?? []) : [];
  if (blue) flags.push('blue');
  if (voice.played.slide) flags.push('slide');
  if (voice.played.bend?.length) flags.push('bend');
  if (own.some((figure) => pickups.has(scene.line[figure.target]!.index))) flags.push('pickup');
  if (voice.top && belonging.leadIn) flags.push('lead-in');
  if (voice.top && (own.length > 0 || resolves(context, place, deed))) flags.push('resolved');
  return flags;
}

/** A non-chord tone whose next linked note is a chord tone at most 2 semitones away. */
function resolves({ walk, scene }: NoteContext, place: number, deed: Deed): boolean {
  const next = scene.line[place + 1];
  if (deed.tier === 'chord' || !next || !isLinked(scene.line[place], next)) return false;
  return walk.isChordTone(place + 1) && Math.abs(walk.step(place, place + 1)) <= 2;
}
