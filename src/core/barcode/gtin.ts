const lengths = new Set([8, 12, 13, 14]);

/** The check digit of the digits before it. Source: GS1 General Specifications, 7.9, weights 3 and 1 from the right. */
function checkDigit(digits: string): number {
  let sum = 0;
  for (const [index, digit] of [...digits].reverse().entries()) sum += Number(digit) * (index % 2 === 0 ? 3 : 1);
  return (10 - (sum % 10)) % 10;
}

/** Whether it is a GTIN of 8, 12, 13 or 14 digits whose check digit fits; an ISBN of 13 digits is one. */
export const isGtin = (text: string): boolean =>
  lengths.has(text.length) && /^\d+$/.test(text) && checkDigit(text.slice(0, -1)) === Number(text.at(-1));

/** Whether it is an ISBN of ten signs whose check digit fits. Source: ISO 2108, modulus 11. */
export function isIsbn10(text: string): boolean {
  if (!/^\d{9}[\dX]$/i.test(text)) return false;
  const sum = [...text].reduce((total, sign, index) => total + (10 - index) * (/x/i.test(sign) ? 10 : Number(sign)), 0);
  return sum % 11 === 0;
}

/** An ISBN of ten signs as the thirteen digits that are printed since 2007. Source: ISO 2108. */
export function isbn13Of(isbn10: string): string {
  const twelve = `978${isbn10.slice(0, 9)}`;
  return `${twelve}${checkDigit(twelve)}`;
}

/**
 * The twelve digits that a short code of eight (number system 0 or 1, six digits, check digit) stands for, or null when it
 * is none. Source: GS1 General Specifications, 5.2.2.4, suppression of zeros.
 */
export function upcOfShort(text: string): string | null {
  const parts = /^([01])(\d{6})(\d)$/.exec(text);
  const [, system = '', six = '', check = ''] = parts ?? [];
  if (!parts) return null;
  const [a, b, c, d, e, last] = six;
  const eleven =
    last === '0' || last === '1' || last === '2'
      ? `${system}${a}${b}${last}0000${c}${d}${e}`
      : last === '3'
        ? `${system}${a}${b}${c}00000${d}${e}`
        : last === '4'
          ? `${system}${a}${b}${c}${d}00000${e}`
          : `${system}${a}${b}${c}${d}${e}0000${last}`;
  const whole = `${eleven}${check}`;
  return isGtin(whole) ? whole : null;
}

/** The ways in which the same code is written down: with and without zeros before it, and of a book also the ten signs of old. */
export function spellingsOf(code: string): string[] {
  const bare = code.replace(/^0+(?=\d{8})/, '');
  const padded = [8, 12, 13, 14].filter((length) => length >= bare.length).map((length) => bare.padStart(length, '0'));
  return [...new Set([code, ...padded, ...isbn10Of(code)])];
}

function isbn10Of(code: string): string[] {
  if (!/^978\d{10}$/.test(code)) return [];
  const nine = code.slice(3, 12);
  const sum = [...nine].reduce((total, digit, index) => total + (10 - index) * Number(digit), 0);
  const check = (11 - (sum % 11)) % 11;
  return [`${nine}${check === 10 ? 'X' : check}`];
}

/** Codes that are right and differ from this one by one digit, or by two neighbours that changed places. */
export function nearCodes(text: string): string[] {
  const isRight = (one: string) => isGtin(one) || isIsbn10(one);
  const found = new Set<string>();
  const digits = text.length === 10 ? '0123456789X' : '0123456789';
  for (let at = 0; at < text.length; at++) {
    for (const digit of digits) {
      const other = text.slice(0, at) + digit + text.slice(at + 1);
      if (other !== text && isRight(other)) found.add(other);
    }
    const swapped = text.slice(0, at) + (text[at + 1] ?? '') + (text[at] ?? '') + text.slice(at + 2);
    if (swapped !== text && swapped.length === text.length && isRight(swapped)) found.add(swapped);
  }
  return [...found];
}
