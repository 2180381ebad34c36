/** What tells what was paid for something, or lets it be worked out from what would be left of its price. */
const withheld = new Set([
  'cost',
  'totalCost',
  'net',
  'nets',
  'netBelow',
  'netAdvertised',
  'margin',
  'returnOnCost',
  'best',
  'bestEach',
  'shares',
]);

/** Where a field is named by its id: conditions, orders, columns, and entries of a history. */
const naming = new Set(['field', 'sort', 'id', 'column']);

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !(value instanceof Date);
const isOfWithheld = (value: unknown): boolean =>
  isRecord(value) &&
  Object.entries(value).some(([key, told]) => naming.has(key) && typeof told === 'string' && withheld.has(told));

const hidden = (value: unknown): unknown => (Array.isArray(value) ? [] : null);

/**
 * A copy of an answer without prices of purchase: figures and records become null, lists empty, and entries about such
 * a field go.
 */
export function withoutCosts(value: unknown): unknown {
  if (Array.isArray(value)) return value.filter((one) => !isOfWithheld(one)).map(withoutCosts);
  if (!isRecord(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, told]) => [key, withheld.has(key) ? hidden(told) : withoutCosts(told)]),
  );
}

const parsed = (text: string): unknown => {
  if (!/^\s*[[{]/.test(text)) return null;
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/**
 * The first field of purchase prices that a question or a change names, at any depth, also inside JSON that is sent as
 * text; null where it names none. Looking for it by narrowing down, or sorting by it, would tell it as well; sending
 * nothing for it, as a page does that was not told, would lose it.
 */
export function withheldField(value: unknown): string | null {
  if (typeof value === 'string') {
    const inside = parsed(value);
    return inside === null ? null : withheldField(inside);
  }
  if (Array.isArray(value)) {
    for (const one of value) {
      const found = withheldField(one);
      if (found) return found;
    }
    return null;
  }
  if (!isRecord(value)) return null;
  for (const [key, told] of Object.entries(value)) {
    if (withheld.has(key) && told !== undefined) return key;
    if (naming.has(key) && typeof told === 'string' && withheld.has(told)) return told;
    const found = withheldField(told);
    if (found) return found;
  }
  return null;
}
