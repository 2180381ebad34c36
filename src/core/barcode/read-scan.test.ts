import fc from 'fast-check';
import { isGtin, nearCodes, spellingsOf, upcOfShort } from './gtin';
import { readScans } from './read-scan';

const code = (text: string) => readScans(text).map((one) => (one.is === 'code' ? one.code : one.is));

const digitsOf = (count: number) => fc.array(fc.integer({ min: 0, max: 9 }), { minLength: count, maxLength: count });
/** Any right code of one of the lengths. */
const right = fc
  .constantFrom(7, 11, 12)
  .chain(digitsOf)
  .map((digits) => {
    const sum = [...digits].reverse().reduce((total, digit, index) => total + digit * (index % 2 ? 1 : 3), 0);
    return `${digits.join('')}${(10 - (sum % 10)) % 10}`;
  });

test.each([
  ['4006381333931', ['4006381333931']],
  ['  4006381333931\t', ['4006381333931']],
  [']E04006381333931\r\n', ['4006381333931']],
  ['*4006381333931*', ['4006381333931']],
  ['036000291452', ['036000291452']],
  ['36000291452', ['036000291452']],
  ['978-0-306-40615-7', ['9780306406157']],
  ['0-306-40615-2', ['9780306406157']],
  ['080442957x', ['9780804429573']],
  ['04252614', ['042100005264']],
  ['9780306406157 51299', ['9780306406157']],
  ['978030640615751299', ['9780306406157']],
  ['40063813339319780306406157', ['4006381333931', '9780306406157']],
  ['4006381333931 9780306406157', ['4006381333931', '9780306406157']],
  ['(01)04006381333931(17)281231', ['4006381333931']],
  ['0104006381333931', ['4006381333931']],
  ['01040063813339311728123110AB', ['4006381333931']],
  [']C10104006381333931\u001d10AB', ['4006381333931']],
  // It begins as a carton code would, and is two codes.
  ['01123456789714010021344850', ['0112345678971', '4010021344850']],
  ['Brask K-2', ['words']],
  ['GH-0042', ['words']],
  ['4006381333932', ['broken']],
  ['12345', ['broken']],
  ['#?!', ['broken']],
  ['', []],
  ['\u0000\u0003', []],
])('%j is read', (text, codes) => expect(code(text)).toEqual(codes));

test('the price that is printed beside a book, and the day that a carton tells', () => {
  expect(readScans('978030640615751299')).toMatchObject([{ printedPrice: { amount: 1_299, currency: 'USD' } }]);
  expect(readScans('978030640615790000')).toMatchObject([{ printedPrice: null }]);
  expect(readScans('(01)04006381333931(17)281200')).toMatchObject([{ expiresOn: '2028-12-31' }]);
  expect(readScans('(01)04006381333931(17)281399')).toMatchObject([{ expiresOn: null }]);
});

test('what is wrong with a code is said', () => {
  expect(readScans('4006381333932')).toMatchObject([{ why: expect.stringContaining('check digit') }]);
  expect(readScans('12345')).toMatchObject([{ why: expect.stringContaining('5 digits') }]);
  expect(readScans('x'.repeat(300))).toMatchObject([{ is: 'broken', why: expect.stringContaining('too long') }]);
});

test('every right code is read as it is, whatever stands around it', () => {
  fc.assert(
    fc.property(right, fc.constantFrom('', ' ', '\t', '\r\n', '*'), (text, around) => {
      const [scan, ...more] = readScans(around + text + around);
      expect(more).toEqual([]);
      expect(scan?.is).toBe('code');
      expect(scan?.is === 'code' && spellingsOf(text).concat(upcOfShort(text) ?? [])).toContain(
        scan?.is === 'code' && scan.code,
      );
    }),
  );
});

test('one wrong digit of a code is seen, and the right one is among those near to it', () => {
  fc.assert(
    fc.property(right, fc.nat(12), fc.integer({ min: 1, max: 9 }), (text, at, more) => {
      const place = at % text.length;
      const wrong = text.slice(0, place) + ((Number(text[place]) + more) % 10) + text.slice(place + 1);
      expect(isGtin(wrong)).toBe(false);
      expect(nearCodes(wrong)).toContain(text);
    }),
  );
});

test('two codes that came as one are two again', () => {
  fc.assert(
    fc.property(right, right, (a, b) => {
      fc.pre(a.length === 13 && b.length === 13);
      expect(code(a + b)).toEqual([a, b]);
    }),
  );
});
