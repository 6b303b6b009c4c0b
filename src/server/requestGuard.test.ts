import { expect, test } from '@jest/globals';
import { contentPolicy } from './contentPolicy';
import { refusal } from './requestGuard';

const request = (change: object) =>
  refusal({ method: 'GET', host: '127.0.0.1:3000', origin: null, site: null, ...change });

test.each([
  ['a page at home', {}, true],
  ['localhost', { host: 'localhost:3000' }, true],
  ['IPv6', { host: '[::1]:3000' }, true],
  ['capitals', { host: 'LOCALHOST:1' }, true],
  ['no host', { host: null }, false],
  ['another name for this machine', { host: 'evil.example:3000' }, false],
  ['a name that begins like ours', { host: '127.0.0.1.evil.example' }, false],
  ['a foreign post', { method: 'POST', origin: 'http://evil.example' }, false],
  ['a post without origin', { method: 'POST' }, false],
  ['a post from another port', { method: 'POST', origin: 'http://127.0.0.1:9' }, false],
  ['our own post', { method: 'POST', origin: 'http://127.0.0.1:3000' }, true],
  [
    'our own post by a foreign site',
    { method: 'POST', origin: 'http://127.0.0.1:3000', site: 'cross-site' },
    false,
  ],
  ['a deletion without origin', { method: 'DELETE' }, false],
  ['an unknown method', { method: 'PURGE' }, false],
])('%s', (_, change, passes) => expect(request(change) === null).toBe(passes));

test('the policy lets nothing in from elsewhere', () => {
  const policy = contentPolicy('N', false);
  expect(policy).toContain("default-src 'none'");
  expect(policy).toContain("'nonce-N' 'strict-dynamic'");
  expect(policy).not.toMatch(/https?:|\*|unsafe-eval'(?<!wasm-unsafe-eval')/);
  expect(contentPolicy('N', true)).toContain('ws:');
});
