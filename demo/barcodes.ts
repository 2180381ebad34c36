/** Twelve digits with their check digit, as GTIN-13 and ISBN-13 compute it: weights 1 and 3 by turns. */
export function withCheckDigit(twelve: string): string {
  const sum = [...twelve].reduce((total, digit, index) => total + Number(digit) * (index % 2 ? 3 : 1), 0);
  return `${twelve}${(10 - (sum % 10)) % 10}`;
}
