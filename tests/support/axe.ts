import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * What axe finds on a page that is shown, in both themes: everything in the dark one, and in the light one
 * the contrast alone, since a theme changes colours and nothing else.
 * @returns theme, place, rule and the first piece of the page that breaks it
 */
export async function violationsIn(page: Page, where: string): Promise<string[]> {
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dusk');
  const dusk = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'], preload: false })
    .analyze();
  await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'noon'));
  const noon = await new AxeBuilder({ page }).setLegacyMode().withRules('color-contrast').analyze();
  return [...dusk.violations, ...noon.violations].map(
    ({ id, nodes }, index) =>
      `${index < dusk.violations.length ? 'dusk' : 'noon'} ${where} ${id}: ${nodes[0]?.html.slice(0, 160)}`,
  );
}
