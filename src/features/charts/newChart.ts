import { ask } from '@/audio/persistence/serverTakes';

/** What a new chart begins as. */
export const NEW_CHART =
  'title: New chart\nkey: C\ntempo: 110\nfeel: swing\n\n| C7 | F7 | C7 | % |\n| F7 | % | C7 | A7 |\n| Dm7 | G7 | C7 A7 | Dm7 G7 |\n';

/** Makes a chart of the player's own. */
export const makeChart = (text: string): Promise<{ id: string }> =>
  ask('/api/charts', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ text }),
  });
