import type { FindingKind } from '../finding';
import type { AnyKind } from '../measure';
import { approachOneSide } from './approachOneSide';
import { approachUnresolved } from './approachUnresolved';
import { changeIgnored } from './changeIgnored';
import { chordHitWrong } from './chordHitWrong';
import { clash } from './clash';
import { drags } from './drags';
import { endsAsking } from './endsAsking';
import { handoverLate } from './handoverLate';
import { homeScaleOnly } from './homeScaleOnly';
import { landingLate } from './landingLate';
import { leansAhead } from './leansAhead';
import { leansBack } from './leansBack';
import { leapsIntoChanges } from './leapsIntoChanges';
import { leapsOnly } from './leapsOnly';
import { lostPlace } from './lostPlace';
import { narrowRange } from './narrowRange';
import { neverCrosses } from './neverCrosses';
import { noApproaches } from './noApproaches';
import { noEnclosures } from './noEnclosures';
import { noMotif } from './noMotif';
import { noSpace } from './noSpace';
import { noUpbeats } from './noUpbeats';
import { oneDirection } from './oneDirection';
import { onePosition } from './onePosition';
import { oneRhythm } from './oneRhythm';
import { outlineOnly } from './outlineOnly';
import { phrasesTooShort } from './phrasesTooShort';
import { rootOnly } from './rootOnly';
import { rushes } from './rushes';
import { sameShape } from './sameShape';
import { scaleRunning } from './scaleRunning';
import { startsAlike } from './startsAlike';
import { startsOnOne } from './startsOnOne';
import { staysOnGround } from './staysOnGround';
import { staysOutside } from './staysOutside';
import { stepOutLost } from './stepOutLost';
import { stillOnOldChord } from './stillOnOldChord';
import { targetMissed } from './targetMissed';
import { targetsMissed } from './targetsMissed';
import { toneMissed } from './toneMissed';
import { toneNeverPlayed } from './toneNeverPlayed';
import { turnsEarly } from './turnsEarly';
import { turnsLate } from './turnsLate';
import { uneven } from './uneven';

/** Every kind of finding; a new one is a file and a line here. */
export const KINDS: readonly AnyKind[] = [
  targetMissed,
  targetsMissed,
  toneMissed,
  stillOnOldChord,
  landingLate,
  rootOnly,
  leapsIntoChanges,
  turnsLate,
  turnsEarly,
  noApproaches,
  approachOneSide,
  approachUnresolved,
  noEnclosures,
  changeIgnored,
  toneNeverPlayed,
  homeScaleOnly,
  outlineOnly,
  clash,
  narrowRange,
  onePosition,
  startsOnOne,
  startsAlike,
  noSpace,
  phrasesTooShort,
  neverCrosses,
  endsAsking,
  noMotif,
  sameShape,
  rushes,
  drags,
  leansBack,
  leansAhead,
  uneven,
  noUpbeats,
  oneRhythm,
  scaleRunning,
  leapsOnly,
  oneDirection,
  staysOutside,
  staysOnGround,
  stepOutLost,
  lostPlace,
  handoverLate,
  chordHitWrong,
];

const BY_ID = new Map(KINDS.map((kind) => [kind.id, kind]));

export const kindOf = (id: FindingKind): AnyKind | undefined => BY_ID.get(id);

const PRAISE: Partial<Record<FindingKind, string>> = { improved: 'got better', kept: 'kept when faster' };

/** A kind of finding in a few words, for choosing takes by. */
export const findingName = (id: FindingKind): string => kindOf(id)?.name ?? PRAISE[id] ?? id;
