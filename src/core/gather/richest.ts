import type { ItemPatch } from '../item/item';
import { toPlainText } from '../listing/fit/plain-text';
import { textLength } from '../listing/fit/text-length';
import { namesLike } from '../listing/map/synonyms';
import { nameKey } from '../rules/compiled';
import type { Told } from './told';

/** One of the listings that are one thing. */
export type Source = {
  /** What it is called by whoever joins them, such as its account. */
  id: string;
  told: Told;
  /** Width by height of its photos, in their order. */
  photos: readonly { hash: string; width: number; height: number }[];
};

export type Joined = {
  fields: ItemPatch;
  photos: string[];
  quantity: number;
  /** Field → the source that it was taken from. */
  from: Record<string, string>;
  /** What they say differently of the stock, in a sentence; null where they agree. */
  stockSaid: string | null;
};

type Field = keyof ItemPatch;

/** How much a value says: the longest text, the longest list, the most attributes win; of anything else the first. */
function weightOf(field: Field, fields: ItemPatch): number {
  const value = fields[field];
  if (value === undefined) return -1;
  if (field === 'description') {
    const html = String(value);
    // Of two texts of one length the one with structure says more.
    return textLength(toPlainText(html)) * 1_000 + Math.min(999, html.split('<').length);
  }
  if (field === 'title' || field === 'conditionNote') return textLength(String(value));
  return Array.isArray(value) ? value.length : 0;
}

function richestOf(field: Field, sources: readonly Source[], preferred: string | undefined): Source | undefined {
  const saying = sources.filter((one) => one.told.fields[field] !== undefined);
  const wished = saying.find((one) => one.id === preferred);
  if (wished) return wished;
  return saying.reduce<Source | undefined>(
    (best, one) => (!best || weightOf(field, one.told.fields) > weightOf(field, best.told.fields) ? one : best),
    undefined,
  );
}

const together = ['axes', 'variations'] as const;

/** Whether a property of that name, or of one that means the same, is among these keys. */
const saysAlready = (known: ReadonlySet<string>, name: string): boolean =>
  namesLike(name).some((key) => known.has(key));

/** Properties of the one, and those of the other that the first says under no name. */
export function withMoreAttributes(
  own: Readonly<Record<string, string>>,
  more: Readonly<Record<string, string>>,
): Record<string, string> {
  const known = new Set(Object.keys(own).map(nameKey));
  const added = Object.entries(more).filter(([name]) => !saysAlready(known, name));
  return { ...own, ...Object.fromEntries(added) };
}

/** Everything that any of them says of its properties; what two say differently as the one says that says most. */
function attributesOf(sources: readonly Source[], preferred: string | undefined) {
  const size = (one: Source) => Object.keys(one.told.fields.attributes ?? {}).length;
  const ranked = [...sources].sort(
    (a, b) => Number(b.id === preferred) - Number(a.id === preferred) || size(b) - size(a),
  );
  const attributes: Record<string, string> = {};
  const known = new Set<string>();
  for (const { told } of ranked)
    for (const [name, value] of Object.entries(told.fields.attributes ?? {})) {
      if (saysAlready(known, name)) continue;
      known.add(nameKey(name));
      attributes[name] = value;
    }
  return { attributes, from: ranked.find((one) => size(one) > 0)?.id };
}

/**
 * The grade that all of them may mean; where there is none the most exact one's. Of several the lowest: nothing is
 * promised that they do not say.
 */
function gradeOf(sources: readonly Source[]): { grade: ItemPatch['condition']; from: string | undefined } {
  const saying = sources.filter((one) => one.told.grades.length);
  const [exact] = [...saying].sort((a, b) => a.told.grades.length - b.told.grades.length);
  const common = exact?.told.grades.filter((grade) => saying.every((one) => one.told.grades.includes(grade))) ?? [];
  return { grade: (common.length ? common : exact?.told.grades)?.at(-1), from: exact?.id };
}

const pixels = ({ photos }: Source) => photos.reduce((sum, one) => sum + one.width * one.height, 0);

/** How many there are: what is offered, the least where they disagree; one that offers all it may leaves more open. */
function stockOf(sources: readonly Source[]): { quantity: number; said: string | null } {
  const offering = sources.filter((one) => one.told.quantity !== null);
  const amount = (one: Source) => one.told.quantity ?? 0;
  const telling = offering.filter((one) => !one.told.isCapped);
  const quantity = telling.length
    ? Math.min(...telling.map(amount))
    : offering.length
      ? Math.max(...offering.map(amount))
      : 1;
  const apart = telling.some((one) => amount(one) !== quantity);
  const said = `${telling.map((one) => `${one.id}: ${amount(one)}`).join(', ')}; taken: ${quantity}, the least`;
  return { quantity, said: apart ? said : null };
}

/**
 * One item of several listings of the same thing: field by field what the richest of them says, the longest text, the
 * most attributes, the largest photos, unless a source is preferred. Of equals the first wins.
 * @param sources at least one, in the order in which they count
 * @param prefer field, or `photos` or `attributes` → the source whose value is taken wherever it says something
 */
export function joinSources(sources: readonly Source[], prefer: Readonly<Record<string, string>> = {}): Joined {
  const names = [...new Set(sources.flatMap((one) => Object.keys(one.told.fields) as Field[]))];
  const fields: ItemPatch = {};
  const from: Record<string, string> = {};
  const take = (field: Field, source: Source | undefined) => {
    const value = source?.told.fields[field];
    if (!source || value === undefined) return;
    Object.assign(fields, { [field]: value });
    from[field] = source.id;
  };
  const varied = richestOf('variations', sources, prefer.variations);
  for (const field of names) {
    if (field === 'attributes' || field === 'condition') continue;
    take(field, together.some((one) => one === field) ? varied : richestOf(field, sources, prefer[field]));
  }
  const { attributes, from: attributesFrom } = attributesOf(sources, prefer.attributes);
  if (attributesFrom) Object.assign(fields, { attributes });
  if (attributesFrom) from.attributes = attributesFrom;
  const { grade, from: gradeFrom } = gradeOf(
    prefer.condition && sources.some((one) => one.id === prefer.condition && one.told.grades.length)
      ? sources.filter((one) => one.id === prefer.condition)
      : sources,
  );
  if (grade && gradeFrom) {
    fields.condition = grade;
    from.condition = gradeFrom;
  }
  const [first] = sources;
  const best =
    sources.find((one) => one.id === prefer.photos && one.photos.length) ??
    sources.reduce((top, one) => (top && pixels(top) >= pixels(one) ? top : one), first);
  if (best?.photos.length) from.photos = best.id;
  const { quantity, said } = stockOf(sources);
  return { fields, photos: best?.photos.map((one) => one.hash) ?? [], quantity, from, stockSaid: said };
}
