/** Money is a whole number of minor units (cents) with its currency; it is never a floating-point amount. */
/** The currency in which items are kept; every rate starts from it. */
export const homeCurrency = 'EUR';

/** Minor units per major unit: 100 for currencies with cents. Source: ISO 4217 minor unit column. */
const minorDigits: Record<string, number> = {
  CLP: 0,
  ISK: 0,
  JPY: 0,
  KRW: 0,
  PYG: 0,
  UGX: 0,
  VND: 0,
  XAF: 0,
  XOF: 0,
  BHD: 3,
  IQD: 3,
  JOD: 3,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  TND: 3,
};

export const digitsOf = (currency: string): number => minorDigits[currency] ?? 2;

/** Digits of any script as our own; every minus as `-`. The digits of a script stand in tens, Unicode chapter 4.6. */
const plainDigits = (text: string): string =>
  text
    .normalize('NFKC')
    .replace(/[−–]/g, '-')
    .replace(/(?![0-9])\p{Nd}/gu, (digit) => {
      const code = digit.codePointAt(0) ?? 0;
      let zero = code;
      while (code - zero < 9 && /\p{Nd}/u.test(String.fromCodePoint(zero - 1))) zero--;
      return String((code - zero) % 10);
    });

/** A currency before or after the amount: a sign, or up to three letters with or without one. */
const currencyMark =
  /^(-?)\s*(?:[A-Za-z]{0,3}\p{Sc}|[A-Za-z]{1,3}\b)\s*|\s*(?:\p{Sc}|\b[A-Za-z]{1,3}|(?<=\d)[A-Za-z]{3})$/gu;

/**
 * Reads an amount as people type it: `12`, `12.5`, `12,50`, `1,234.50`, `1.234,50`, `1 234,50`, `€ 9`.
 * A comma before three digits at the end marks thousands; a point there could be either, so that `12.345` is no amount
 * where the currency has not so many digits.
 * @returns minor units, or null when it is not an amount.
 */
export function parseAmount(text: string, currency: string): number | null {
  const clean = plainDigits(text.trim())
    .replace(currencyMark, '$1')
    .replace(/(?<=\d)[\s'’](?=\d{3}(?!\d))/g, '');
  if (!/^-?(?:\d[\d.,]*|[.,]\d+)$/.test(clean)) return null;
  const negative = clean.startsWith('-');
  const body = clean.replace(/-/g, '');
  const lastDot = body.lastIndexOf('.');
  const lastComma = body.lastIndexOf(',');
  const at = Math.max(lastDot, lastComma);
  const both = lastDot >= 0 && lastComma >= 0;
  const separators = (body.match(/[.,]/g) ?? []).length;
  const tail = at < 0 ? '' : body.slice(at + 1);
  const digits = digitsOf(currency);
  // Three digits after one separator are a fraction where the currency has so many.
  const isThousands = at >= 0 && !both && (separators > 1 || (tail.length === 3 && digits !== 3));
  // 12.345: a thousand times more or a slip.
  if (isThousands && separators === 1 && lastDot >= 0) return null;
  if (isThousands && !/^\d{1,3}(?:[.,]\d{3})+$/.test(body)) return null;
  const whole = at < 0 || isThousands ? body.replace(/[.,]/g, '') : body.slice(0, at).replace(/[.,]/g, '');
  const fraction = at < 0 || isThousands ? '' : tail;
  if (fraction.length > digits) return null;
  const minor = Number(whole || '0') * 10 ** digits + Number(fraction.padEnd(digits, '0') || '0');
  if (!Number.isSafeInteger(minor)) return null;
  return negative ? -minor : minor;
}

/** Minor units as a plain decimal number, for files and forms: 1250 → `12.50`. */
export function amountToText(amount: number, currency: string): string {
  const digits = digitsOf(currency);
  const sign = amount < 0 ? '-' : '';
  const absolute = Math.abs(amount);
  if (digits === 0) return `${sign}${absolute}`;
  const unit = 10 ** digits;
  return `${sign}${Math.floor(absolute / unit)}.${String(absolute % unit).padStart(digits, '0')}`;
}

const formatters = new Map<string, Intl.NumberFormat>();

/** Minor units as people read them: 125000 EUR → `€1,250.00`. */
export function formatMoney(amount: number, currency: string): string {
  let formatter = formatters.get(currency);
  if (!formatter) {
    formatter = new Intl.NumberFormat('en', { style: 'currency', currency, currencyDisplay: 'symbol' });
    formatters.set(currency, formatter);
  }
  return formatter.format(amount / 10 ** digitsOf(currency));
}

/**
 * A share of an amount, in basis points (hundredths of a percent), rounded half up away from zero.
 * Exact for amounts up to 9·10¹¹ minor units.
 */
export function share(amount: number, basisPoints: number): number {
  const product = Math.abs(amount) * Math.abs(basisPoints);
  const rounded = Math.floor((product + 5_000) / 10_000);
  return Math.sign(amount) * Math.sign(basisPoints) * rounded || 0;
}
