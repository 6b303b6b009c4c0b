import { alive, expect, makeChart, test } from '../support/browser';
import { violationsIn } from '../support/axe';
import { makeTake } from '../support/takes';

/** What a screen reader is given of each screen: landmarks, headings, and controls by their names. */
const NAVIGATION = `
- banner:
  - navigation "Screens":
    - link "Today"
    - link "Charts"
    - link "Study"
    - link "Record"
    - link "Takes"
    - link "Drills"
    - link "Phrases"
    - link "Progress"
  - link "Settings"
  - button /find/
  - button /keys/
  - button /words/
  - button /^(Noon|Dusk) theme$/
`;

const SET_UP = `
- main:
  - heading "Set up, once." [level=1]
  - list:
    - listitem:
      - heading /1. What comes in/ [level=2]
      - status
      - combobox "Input"
      - button "Listen to the input"
      - combobox "Output"
      - slider "Band starts at level"
    - listitem:
      - heading /2. How you hear the band/ [level=2]
      - radiogroup "How you hear the band":
        - radio "headphones"
        - radio "loudspeaker"
    - listitem:
      - heading /3. The delay/ [level=2]
      - paragraph:
        - button "Measure with clicks"
        - button "Clap along"
    - listitem:
      - heading /4. In tune/ [level=2]
      - button "Listen to the strings"
    - listitem:
      - heading /5. Hand and instrument/ [level=2]
      - combobox "Tuning"
      - textbox "Open strings, low to high"
`;

const CORRECT = `
- main:
  - navigation "Ways to look at this take":
    - button "The form"
    - button "The page"
    - button "Boards"
    - button "Correct"
    - button "Compare"
    - button "Words, files"
    - button /Stand back/
  - heading /note/ [level=1]
  - img /Bars 1 to 4, chorus 1/
  - group "The bar opened"
  - complementary:
    - region "Change a note":
      - heading [level=2]
      - button "a half step up"
      - button "a half step down"
      - button "add"
      - button "take out"
      - button "split"
      - button "start earlier"
      - button "start later"
      - button "join next"
      - button "end earlier"
      - button "end later"
      - button "ghost"
      - button /picked|slurred to the note before/
      - button "move earlier"
      - button "move later"
      - button "play the bar again"
    - status:
      - button /undo/
- contentinfo:
  - button "Play the take"
  - status
  - slider "Band"
  - slider "Take"
  - combobox "Speed"
  - switch "click"
`;

const REVIEW = `
- main:
  - heading [level=1]
  - img /Bars 1 to 4 of the take/
  - complementary:
    - region "Findings":
      - heading "Findings" [level=2]
    - region "Landings by change":
      - table "Landings by change"
`;

const weekOf = (drill: string) => `
- main:
  - heading "The week ahead" [level=1]
  - button "Print"
  - list:
    - listitem:
      - heading /Today/ [level=2]
      - list:
        - listitem:
          - paragraph:
            - link /${drill}/
          - paragraph:
            - button /${drill}.*, a day earlier/ [disabled]
            - button /${drill}.*, a day later/
`;

test('a screen reader is told landmarks, headings and the name of every control', async ({
  page,
  request,
  baseURL,
}) => {
  const take = await makeTake(request, baseURL!);
  const chart = await makeChart(request, baseURL!, 'title: By Name\n| Dm7 | G7 |\n');
  await request.post('/api/drills', {
    headers: { origin: baseURL! },
    data: { chartId: chart, words: 'roots, at 61' },
  });
  for (const [path, snapshot] of [
    ['/setup', SET_UP],
    [`/takes/${take}?view=correct&at=note-3`, CORRECT],
    [`/takes/${take}`, REVIEW],
    ['/week', weekOf('Roots')],
  ] as const) {
    await page.goto(path);
    await alive(page);
    await expect(page.locator('body')).toMatchAriaSnapshot(NAVIGATION);
    await expect(page.locator('body')).toMatchAriaSnapshot(snapshot);
  }
});

test('in the reader’s own colours everything stays legible, and what is current is told apart', async ({
  page,
  request,
  baseURL,
}) => {
  const take = await makeTake(request, baseURL!);
  const chart = await makeChart(request, baseURL!, 'title: In Other Colours\n| Dm7 | G7 |\n');
  test.setTimeout(150_000);
  await page.emulateMedia({ forcedColors: 'active', reducedMotion: 'reduce' });
  for (const path of [`/takes/${take}`, `/study/${chart}`, '/settings', '/week']) {
    await page.goto(path);
    await alive(page);
    expect(await violationsIn(page, path)).toEqual([]);
    const outline = (current: string) =>
      page
        .locator(`header a${current}`)
        .first()
        .evaluate((link) => getComputedStyle(link).outlineStyle);
    expect([await outline('[aria-current]'), await outline(':not([aria-current])')]).toEqual([
      'solid',
      'none',
    ]);
    // what the one accent fills is read on it
    const [ground, ink] = await page.evaluate(() => {
      const probe = document.createElement('button');
      probe.className = 'go';
      document.body.append(probe);
      const { backgroundColor, color } = getComputedStyle(probe);
      probe.remove();
      return [backgroundColor, color];
    });
    expect(ground).not.toBe(ink);
  }
});
