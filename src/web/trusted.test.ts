import { askedBy, keepBelieved, readTrusted } from './trusted';

const nobody = readTrusted('');
const house = readTrusted('127.0.0.1, 10.0.0.0/8, fd00::/8');

test('what a stranger says of himself counts for nothing', () => {
  const headers = {
    host: 'shop.example',
    'x-forwarded-for': '127.0.0.1',
    'x-forwarded-proto': 'https',
    'x-forwarded-host': 'bank.example',
  };
  const stranger = { client: '203.0.113.9', scheme: 'http', host: 'shop.example' };
  expect(askedBy('203.0.113.9', headers, house)).toEqual(stranger);
  expect(askedBy('::ffff:203.0.113.9', headers, house)).toEqual(stranger);
  expect(askedBy('127.0.0.1', headers, nobody)).toEqual({ ...stranger, client: '127.0.0.1' });
});

test('behind proxies the client is the last that is none of them', () => {
  const headers = {
    host: '10.0.0.5:4300',
    'x-forwarded-for': '127.0.0.1, 198.51.100.7, 10.0.0.9',
    'x-forwarded-proto': 'https',
    'x-forwarded-host': 'shop.example',
  };
  const found = { client: '198.51.100.7', scheme: 'https', host: 'shop.example' };
  expect(askedBy('::ffff:127.0.0.1', headers, house)).toEqual(found);
  expect(askedBy('fd00::7', headers, house)).toEqual(found);
  expect(askedBy('10.0.0.9', { host: 'a' }, house)).toEqual({ client: '10.0.0.9', scheme: 'http', host: 'a' });
  expect(askedBy('10.0.0.9', { host: 'a', 'x-forwarded-for': "'; drop" }, house).client).toBe('10.0.0.9');
});

test('only what was found out goes on', () => {
  const headers = {
    host: 'a',
    'x-real-ip': '1.2.3.4',
    forwarded: 'for=1.2.3.4',
    'x-forwarded-for': '1.2.3.4',
    'x-forwarded-port': '1',
    accept: '*/*',
  };
  keepBelieved(headers, askedBy('203.0.113.9', headers, house));
  expect(headers).toEqual({
    host: 'a',
    accept: '*/*',
    'x-forwarded-for': '203.0.113.9',
    'x-forwarded-proto': 'http',
    'x-forwarded-host': 'a',
  });
});

test.each(['local', '10.0.0.0/33', '1.2.3', 'fd00::/129', '10.0.0.1/x'])('%s is no proxy', (text) => {
  expect(() => readTrusted(text)).toThrow('NETTING_TRUSTED_PROXIES');
});
