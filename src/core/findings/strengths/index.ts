import type { AnyStrength } from '../strength';
import { bestLanding } from './bestLanding';
import { builtUp } from './builtUp';
import { cameHome } from './cameHome';
import { evenTime } from './evenTime';
import { halfStepsHome } from './halfStepsHome';
import { heardWithoutBand } from './heardWithoutBand';
import { landingsMet } from './landingsMet';
import { leftSpace } from './leftSpace';
import { themeKept } from './themeKept';

/** Every kind of strength; a new one is a file and a line here. */
export const STRENGTHS: readonly AnyStrength[] = [
  landingsMet,
  heardWithoutBand,
  themeKept,
  builtUp,
  evenTime,
  cameHome,
  halfStepsHome,
  leftSpace,
  bestLanding,
];
