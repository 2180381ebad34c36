const signs: Record<string, number> = { '½': 1 / 2, '¼': 1 / 4, '¾': 3 / 4, '⅓': 1 / 3, '⅔': 2 / 3, '⅛': 1 / 8 };

/**
 * A number as people write measures: `19,5`, `7 1/2`, `3/4`, `7½`.
 * @returns null when it is none, or when its fraction divides by nothing
 */
export function readNumber(text: string): number | null {
  const clean = text.trim();
  const sign = clean.slice(-1);
  const part = signs[sign];
  if (part !== undefined) {
    const whole = clean.slice(0, -1).trim();
    return whole === '' ? part : /^\d+$/.test(whole) ? Number(whole) + part : null;
  }
  const hit = /^(?:(\d+(?:[.,]\d+)?)(?:\s+|$))?(?:(\d+)\/(\d+))?$/.exec(clean);
  if (!hit || (hit[1] === undefined && hit[2] === undefined)) return null;
  const fraction = hit[2] === undefined ? 0 : Number(hit[2]) / Number(hit[3]);
  return Number.isFinite(fraction) ? Number((hit[1] ?? '0').replace(',', '.')) + fraction : null;
}
