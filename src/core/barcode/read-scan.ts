import { isbn13Of, isGtin, isIsbn10, upcOfShort } from './gtin';

/** A price that is printed as a code of five digits beside a book's: minor units of a currency. */
export type PrintedPrice = { amount: number; currency: string };

/** What was read by a scanner, or typed into its field. */
export type Scan =
  | {
      is: 'code';
      /** A GTIN or an ISBN of thirteen digits, its check digit right. */
      code: string;
      /** What was done to it so that it is one, in words; null when nothing was. */
      mended: string | null;
      printedPrice: PrintedPrice | null;
      /** The day until which it is good, as 2028-12-31, where the code tells it. */
      expiresOn: string | null;
    }
  | { is: 'words'; words: string }
  | { is: 'broken'; text: string; why: string };

type Code = Extract<Scan, { is: 'code' }>;

const plain = { mended: null, printedPrice: null, expiresOn: null };
export const longestScan = 200;

/** Currencies of the five-digit price code by its first digit. Source: BISAC policy on the EAN-5 add-on. */
const priceCurrencies: Record<string, string> = {
  '0': 'GBP',
  '1': 'GBP',
  '3': 'AUD',
  '4': 'NZD',
  '5': 'USD',
  '6': 'CAD',
};

function printedPrice(five: string): PrintedPrice | null {
  const currency = priceCurrencies[five[0] ?? ''];
  // 90000 and what begins with 9 says that there is no price.
  if (!currency) return null;
  const amount = Number(currency === 'GBP' ? five : five.slice(1));
  return amount > 0 ? { amount, currency } : null;
}

/** The last day of the month where no day is said, else that day; null when it is none. Two digits of the year are of this century. */
function dayOf(six: string): string | null {
  const [, year = '', month = '', day = ''] = /^(\d{2})(\d{2})(\d{2})$/.exec(six) ?? [];
  const last = new Date(Date.UTC(2000 + Number(year), Number(month), 0)).getUTCDate();
  if (Number(month) < 1 || Number(month) > 12 || Number(day) > last) return null;
  return `20${year}-${month}-${day === '00' ? String(last).padStart(2, '0') : day}`;
}

/**
 * A carton code that names its parts: (01) GTIN, (15) or (17) best before. The parts of fixed length before the first of
 * another kind are read. Source: GS1 General Specifications, 3.2.
 */
function namedParts(text: string): Code | null {
  const digits = text.replace(/[()\u001d]/g, '');
  const [, gtin = '', rest = ''] = /^01(\d{14})(.*)$/.exec(digits) ?? [];
  if (!isGtin(gtin)) return null;
  const [, day = ''] = /^(?:11\d{6})?1[57](\d{6})/.exec(rest) ?? [];
  return { is: 'code', ...plain, code: withoutIndicator(gtin), expiresOn: day ? dayOf(day) : null };
}

/** A GTIN of fourteen digits that begins with zero is that of the single piece. */
const withoutIndicator = (code: string) => (code.length === 14 && code.startsWith('0') ? code.slice(1) : code);

/** One code, as it stands; null when it is none. */
function whole(text: string): Code | null {
  if (isGtin(text)) return { is: 'code', ...plain, code: withoutIndicator(text) };
  if (isIsbn10(text)) return { is: 'code', ...plain, code: isbn13Of(text), mended: 'An ISBN of ten signs' };
  const long = upcOfShort(text);
  if (long) return { is: 'code', ...plain, code: long, mended: 'A short code, written out' };
  return null;
}

/** A code with the price of a book, or the number of an issue, printed beside it. */
function withAddOn(text: string): Code | null {
  for (const [main, more] of [
    [13, 5],
    [12, 5],
    [13, 2],
    [12, 2],
  ] as const) {
    if (text.length !== main + more) continue;
    const code = text.slice(0, main);
    if (!isGtin(code)) continue;
    return { is: 'code', ...plain, code, printedPrice: more === 5 ? printedPrice(text.slice(main)) : null };
  }
  return null;
}

/** Two or more codes that arrived as one. */
function severalIn(text: string): Code[] | null {
  if (text.length < 16) return null;
  for (const length of [13, 12, 14, 8]) {
    const first = text.slice(0, length);
    if (!isGtin(first)) continue;
    const rest = text.slice(length);
    const one: Code = { is: 'code', ...plain, code: withoutIndicator(first) };
    if (isGtin(rest)) return [one, { is: 'code', ...plain, code: withoutIndicator(rest) }];
    const more = severalIn(rest);
    if (more) return [one, ...more];
  }
  return null;
}

/** A zero that a spreadsheet has taken away. */
function withZero(text: string): Code | null {
  if (text.length === 11 && isGtin(`0${text}`))
    return { is: 'code', ...plain, code: `0${text}`, mended: 'A zero before it was missing' };
  if (text.length === 9 && isIsbn10(`0${text}`))
    return { is: 'code', ...plain, code: isbn13Of(`0${text}`), mended: 'A zero before it was missing' };
  return null;
}

const brokenDigits = (text: string): Scan => ({
  is: 'broken',
  text,
  why: [8, 10, 12, 13, 14].includes(text.length)
    ? 'The check digit does not fit: a digit was read or typed wrong'
    : `It has ${text.length} digits; codes have 8, 10, 12, 13 or 14`,
});

/**
 * Reads what a scanner sent, or a person typed: signs around it, signs of the kind of code, hyphens and blanks are taken
 * away; ISBNs of ten signs and short codes are written out; a price beside it is read; two codes in one become two.
 * @returns one or more; nothing where nothing was read
 */
export function readScans(given: string): Scan[] {
  const text = given.replace(/^\][A-Za-z]\d/, '').replace(/^[\s\u0000-\u001f*]+|[\s\u0000-\u001f*]+$/g, '');
  if (text === '') return [];
  if (text.length > longestScan)
    return [{ is: 'broken', text: text.slice(0, longestScan), why: 'That is too long for a code or a name' }];
  const parts = text.split(/[\s\u0000-\u001c]+/);
  const codes = parts.map((part) => whole(part.replace(/-/g, '')));
  if (parts.length > 1 && codes.every((one) => one !== null)) return codes.filter((one) => one !== null);
  const compact = text.replace(/[\s-]/g, '').toUpperCase();
  // Said with brackets, a sign between the parts or the kind of code, it cannot be two codes that came as one.
  const isNamed = /^\(01\)|\u001d|^01\d{14}.*[A-Z]/.test(compact) || /^\][A-Za-z]\d01/.test(given.trim());
  const named = isNamed ? namedParts(compact) : null;
  if (named) return [named];
  if (/^\d+X?$/.test(compact)) {
    const one = whole(compact) ?? withAddOn(compact) ?? withZero(compact);
    const several = one ? null : severalIn(compact);
    if (one || several) return one ? [one] : (several ?? []);
    const parted = namedParts(compact);
    return [parted ?? brokenDigits(compact)];
  }
  const words = text.replace(/[\u0000-\u001f\ufffd]+/g, ' ').trim();
  if (!/\p{L}.*\p{L}/u.test(words) && !/^[A-Za-z0-9.\-/]{2,40}$/.test(words))
    return [{ is: 'broken', text: words || text.slice(0, 20), why: 'That is neither a code nor a name' }];
  return [{ is: 'words', words }];
}
