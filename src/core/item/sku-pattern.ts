/**
 * Stock numbers by pattern, in a syntax of our own: literal letters, digits, dots, dashes and slashes, and in braces
 * what is filled in: `{bin}` the place, `{supplier}`, `{brand}`, `{category}` (a number behind a colon takes so many
 * letters: `{brand:3}`), `{yyyy}` `{yy}` `{mm}` `{dd}` of the day, `{week}` of the year (ISO 8601), and exactly one
 * `{seq}`, a running number (`{seq:4}` pads it to four digits). An empty part goes away together with the sign before it.
 */
export type SkuPattern = readonly SkuPart[];
type SkuPart = { text: string } | { field: SkuToken; length: number | null };

const tokens = ['bin', 'supplier', 'brand', 'category', 'yyyy', 'yy', 'mm', 'dd', 'week', 'seq'] as const;
type SkuToken = (typeof tokens)[number];

export type SkuFacts = { location: string; supplier: string; brand: string; category: string; day: Date };

/** Reads a pattern. @returns the parts, or what is wrong with it in one sentence */
export function readSkuPattern(pattern: string): { parts: SkuPattern } | { problem: string } {
  const parts: SkuPart[] = [];
  let rest = pattern;
  while (rest) {
    const hole = /^\{([a-z]+)(?::(\d{1,2}))?\}/.exec(rest);
    const plain = /^[A-Za-z0-9.\-/]+/.exec(rest);
    if (hole) {
      const field = tokens.find((token) => token === hole[1]);
      if (!field) return { problem: `There is no {${hole[1]}}` };
      parts.push({ field, length: hole[2] ? Number(hole[2]) : null });
      rest = rest.slice(hole[0].length);
    } else if (plain) {
      parts.push({ text: plain[0] });
      rest = rest.slice(plain[0].length);
    } else return { problem: `“${rest.slice(0, 1)}” cannot stand in a stock number` };
  }
  if (parts.filter((part) => 'field' in part && part.field === 'seq').length !== 1)
    return { problem: 'Exactly one {seq} is needed, so that no number comes twice' };
  return { parts };
}

/** ISO 8601 week of the year: the week that holds the year's first Thursday is week 1. */
export function isoWeek(day: Date): number {
  const thursday = new Date(Date.UTC(day.getUTCFullYear(), day.getUTCMonth(), day.getUTCDate()));
  thursday.setUTCDate(thursday.getUTCDate() + 4 - (thursday.getUTCDay() || 7));
  const first = Date.UTC(thursday.getUTCFullYear(), 0, 1);
  return Math.ceil(((thursday.getTime() - first) / 86_400_000 + 1) / 7);
}

const letters = (text: string, length: number | null): string => {
  const clean = text
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9]+/g, '')
    .toUpperCase();
  return length === null ? clean : clean.slice(0, length);
};

function said(field: Exclude<SkuToken, 'seq'>, length: number | null, facts: SkuFacts): string {
  const two = (value: number) => String(value).padStart(2, '0');
  switch (field) {
    case 'bin':
      return letters(facts.location, length);
    case 'category':
      return letters(facts.category.split('/').at(-1) ?? '', length);
    case 'supplier':
    case 'brand':
      return letters(facts[field], length);
    case 'yyyy':
      return String(facts.day.getUTCFullYear());
    case 'yy':
      return two(facts.day.getUTCFullYear() % 100);
    case 'mm':
      return two(facts.day.getUTCMonth() + 1);
    case 'dd':
      return two(facts.day.getUTCDate());
    case 'week':
      return two(isoWeek(facts.day));
  }
}

/** What stands before and behind the running number, for these facts; `digits` is how far it is padded. */
export function skuFrame(parts: SkuPattern, facts: SkuFacts): { before: string; after: string; digits: number } {
  const sides: [string, string] = ['', ''];
  let side: 0 | 1 = 0;
  let digits = 4;
  let skipSign = false;
  for (const part of parts) {
    if ('text' in part) {
      sides[side] += skipSign ? part.text.replace(/^[.\-/]/, '') : part.text;
      skipSign = false;
    } else if (part.field === 'seq') {
      side = 1;
      digits = part.length ?? 4;
      skipSign = false;
    } else {
      const text = said(part.field, part.length, facts);
      if (text === '') {
        // The sign before an empty part goes; at the very beginning it is the sign behind it.
        if (/[.\-/]$/.test(sides[side])) sides[side] = sides[side].slice(0, -1);
        else skipSign = sides[side] === '';
      }
      sides[side] += text;
    }
  }
  return { before: sides[0].slice(0, 28), after: sides[1].slice(0, 6), digits: Math.min(digits, 6) };
}

/** The stock number with this running number. */
export const skuIn = ({ before, after, digits }: ReturnType<typeof skuFrame>, seq: number): string =>
  `${before}${String(seq).padStart(digits, '0')}${after}`.replace(/^[.\-/]+/, '');

/** The running number in a stock number of this frame, or null when it belongs to another one. */
export function seqOf(frame: ReturnType<typeof skuFrame>, sku: string): number | null {
  const before = frame.before.replace(/^[.\-/]+/, '');
  if (!sku.startsWith(before) || !sku.endsWith(frame.after) || sku.length <= before.length + frame.after.length)
    return null;
  const middle = sku.slice(before.length, sku.length - frame.after.length);
  return /^\d{1,9}$/.test(middle) ? Number(middle) : null;
}
