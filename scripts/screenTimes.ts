import { chromium, type Page } from '@playwright/test';
import { median, present } from '../src/core/shared';
import { findChromium } from './chromium.mjs';

const ROUNDS = 12;
/** First visits fill the browser's own caches. */
const WARMING = 2;

/**
 * How long a player waits for screens: from the address to the moment when the largest part of the screen is drawn and
 * the last data it asked for is there.
 * @returns medians in milliseconds, in the order of `addresses`
 */
export async function screenTimes(addresses: readonly string[]): Promise<number[]> {
  const browser = await chromium.launch({ executablePath: findChromium() });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const times: number[] = [];
    for (const address of addresses) times.push(await medianOf(page, address));
    return times;
  } finally {
    await browser.close();
  }
}

async function medianOf(page: Page, address: string): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS + WARMING; round++) {
    await page.goto(address, { waitUntil: 'networkidle' });
    if (round >= WARMING) times.push(await page.evaluate(shownAfter));
  }
  return present(median(times));
}

/** Runs in the page: W3C “Largest Contentful Paint” and “Resource Timing”. */
function shownAfter(): Promise<number> {
  const answers = performance
    .getEntriesByType('resource')
    .filter((entry) => (entry as PerformanceResourceTiming).initiatorType === 'fetch')
    .map((entry) => (entry as PerformanceResourceTiming).responseEnd);
  return new Promise((done) => {
    new PerformanceObserver((list) => {
      const drawn = list.getEntries().map(({ startTime }) => startTime);
      done(Math.max(...drawn, ...answers));
    }).observe({ type: 'largest-contentful-paint', buffered: true });
  });
}
