/**
 * The place after this one: its last number counts on, as wide as it was written: `A-09` → `A-10`, `BOX 7` → `BOX 8`. A
 * place without a number gets one.
 */
export function nextPlace(place: string): string {
  const [, before = '', number = '', after = ''] = /^(.*?)(\d+)(\D*)$/.exec(place) ?? [];
  if (number === '') return place === '' ? '' : `${place}-2`;
  return `${before}${String(BigInt(number) + 1n).padStart(number.length, '0')}${after}`;
}
