process.env.NETTING_URL = 'https://shop.example';
process.env.NETTING_HOSTS = 'other.example, third.example';
const { fromHere } = require('./from-here') as typeof import('./from-here');

const asked = (headers: Record<string, string>) => fromHere(new Request('http://x/', { headers }));

test.each([
  ['the shop’s own address', { origin: 'https://shop.example', host: 'inner:4300' }],
  [
    'another name of the shop behind a proxy',
    { origin: 'https://other.example', 'x-forwarded-host': 'other.example', 'x-forwarded-proto': 'https' },
  ],
  ['an address in digits', { origin: 'http://192.168.1.7:4300', host: '192.168.1.7:4300' }],
  ['IPv6 in digits', { origin: 'http://[::1]:4300', host: '[::1]:4300' }],
  ['this machine', { origin: 'http://localhost:4300', host: 'localhost:4300' }],
  ['a browser that names no origin', { 'sec-fetch-site': 'same-origin' }],
])('%s is ours', (_name, headers) => {
  expect(asked(headers)).toBe(true);
});

test.each([
  ['a page elsewhere', { origin: 'http://evil.example', host: '192.168.1.7:4300' }],
  ['a name that a stranger lets point here', { origin: 'http://evil.example:4300', host: 'evil.example:4300' }],
  ['the shop’s name without TLS', { origin: 'http://shop.example', host: 'other.example' }],
  ['another scheme', { origin: 'https://192.168.1.7', host: '192.168.1.7' }],
  ['a page without an origin', { origin: 'null', host: 'null' }],
  ['nothing said', {}],
  ['another site', { 'sec-fetch-site': 'cross-site' }],
])('%s is not', (_name, headers) => {
  expect(asked(headers)).toBe(false);
});
