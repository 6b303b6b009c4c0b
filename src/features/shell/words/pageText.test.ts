/** @jest-environment jsdom */
import { expect, test } from '@jest/globals';
import { termsIn } from '@/presentation';
import { pageText } from './pageText';

test('terms in labels that touch one another are found', () => {
  document.body.innerHTML =
    '<main><span>as the plan has it</span><span>tension</span><b>pentatonic</b></main>';
  const names = termsIn(pageText(document.querySelectorAll('main'))).map(({ name }) => name);
  expect(names).toEqual(['Pentatonic', 'Plan', 'Tension']);
});
