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
