/** What a chart may hold. Well past any form people play, well below what would stall a screen. */
export const CHART_LIMITS = { characters: 65_536, bars: 512, chordsPerBar: 16 } as const;
