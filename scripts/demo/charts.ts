import { LIBRARY } from '../../src/core/chart';

const form = (id: string): string => {
  const found = LIBRARY.find((one) => one.id === id);
  if (!found) throw new Error(`the library has no form ${id}`);
  return found.text;
};

/** The demo's charts, from the library of forms. The first three are the scenario's. */
export const DEMO_CHARTS = {
  lamplight: form('lamplight'),
  ferry: form('ferry'),
  orchard: form('orchard'),
  weir: form('weir'),
  platform: form('platform'),
  lantern: form('lantern'),
  gravel: form('gravel'),
};

export type DemoChart = keyof typeof DEMO_CHARTS;
