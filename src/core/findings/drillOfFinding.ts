import type { Chart } from '../chart';
import { drillFor, type Drill } from '../drills';
import type { PlanWords } from '../plan';
import type { Finding } from './finding';

/**
 * The drill of a finding: its bars, its tempo, and the catalogue's rule for it; null for praise and for what
 * no drill mends.
 */
export const drillOfFinding = ({ drill }: Finding, chart: Chart, plan: PlanWords): Drill | null =>
  drill ? drillFor({ kind: drill.kind, chart, tempo: drill.tempo, span: drill.span, plan }) : null;
