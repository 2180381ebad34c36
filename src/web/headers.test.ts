import { contentPolicy, headersOf } from './headers';

const policy = (path: string) => headersOf(path, 'http')['Content-Security-Policy'] ?? '';

test('a page runs only scripts that carry the number of this answer', () => {
  const scripts = /script-src ([^;]+)/.exec(contentPolicy('abc'))?.[1]?.split(' ');
  expect(scripts).toEqual(["'self'", "'nonce-abc'", "'wasm-unsafe-eval'"]);
  expect(policy('/items/7')).toBe('');
});

test('what is no page runs nothing, and files no inline script', () => {
  for (const path of ['/api/v1/items', '/api/photos/x', '/api/connect/callback'])
    expect(policy(path)).toMatch(/^default-src 'none'/);
  for (const path of ['/_next/static/chunks/a.js', '/icon.svg', '/items/a.b'])
    expect(policy(path)).not.toContain('unsafe-inline');
  expect(policy('/icon.svg')).toContain("script-src 'self'");
});

test('only what came over TLS is told to come so for a year', () => {
  expect(headersOf('/', 'https')).toHaveProperty('Strict-Transport-Security');
  expect(headersOf('/', 'http')).not.toHaveProperty('Strict-Transport-Security');
  expect(headersOf('/', 'http')).toMatchObject({ 'X-Content-Type-Options': 'nosniff' });
});
