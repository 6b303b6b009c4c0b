import { alive, expect, makeChart, test } from '../support/browser';
import { makeTake } from '../support/takes';

test('the course through a tune: its next drill is started by one press, and stands in it as begun', async ({
  page,
  request,
  baseURL,
}, { retry }) => {
  const title = `Course Quay ${retry}`;
  const chart = await makeChart(
    request,
    baseURL!,
    `title: ${title}\nkey: C\ntempo: 110\n\n| Dm7 | G7 | Cmaj7 | A7 |\n`,
  );
  await page.goto(`/drills?chart=${chart}&course=ladder-roots`);
  await alive(page);
  const course = page.getByRole('region', { name: `The course through ${title}` });
  await expect(course.getByRole('button', { name: /next/ })).toContainText('Roots at every change');
  // the pedal starts the step that Today sent here for
  await page.keyboard.press('Space');
  await expect(page).toHaveURL(/\/drills\/[\w-]+$/);
  await page.goto(`/drills?chart=${chart}`);
  await alive(page);
  await expect(course.getByRole('button', { name: /Roots at every change ?, begun/ })).toBeVisible();
});

test('a take that is listed is found by the number of matches, one or many', async ({
  page,
  request,
  baseURL,
}, { retry }) => {
  const words = `matched${retry}`;
  const id = await makeTake(request, baseURL!);
  const put = await request.put(`/api/takes/${id}/words`, {
    headers: { origin: baseURL! },
    data: { words: { stars: 3, tags: [words], remarks: [] } },
  });
  expect(put.ok()).toBe(true);
  await page.goto(`/takes?text=${words}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 take matches');
});
