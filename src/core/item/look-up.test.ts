import { lookUpAddress, lookUpSchema } from './look-up';

const facts = { barcode: '9780306406157', title: 'Light & Shade?', brand: '', model: '', sku: 'GH-0042' };
const address = (text: string) => ({ name: 'Look', address: text });

test('parts of the item are filled in, and say nothing of their own in the address', () => {
  expect(lookUpAddress(address('https://books.example/find?q={barcode}&t={title}'), facts)).toBe(
    'https://books.example/find?q=9780306406157&t=Light%20%26%20Shade%3F',
  );
  expect(lookUpAddress(address('https://books.example/{brand}/{model}'), facts)).toBeNull();
  expect(lookUpAddress(address('https://books.example/'), facts)).toBe('https://books.example/');
});

test.each([
  'javascript:alert(1)',
  'ftp://x.example/',
  'https://',
  'https://{barcode}/',
  'books.example',
  'https://x.example/{nothing}',
  'https://x.example/a b',
])('%s is no address', (text) => expect(lookUpSchema.safeParse(address(text)).success).toBe(false));
test.each(['https://x.example', 'http://x.example:8080/a?b={title}#c', 'https://x.example/?q={sku}'])(
  '%s is one',
  (text) => expect(lookUpSchema.safeParse(address(text)).success).toBe(true),
);
