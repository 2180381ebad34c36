import type { Item } from '../../item/item';
import { type Json, ownValue } from '../../json';
import { homeCurrency, parseAmount } from '../../measure/money';
import { type CompiledRules, nameKey } from '../../rules/compiled';
import type { ExtraRule } from '../../rules/rules';
import type { Issue, ListingValue, Origin } from '../fields';
import { fitContents } from '../fit/highlights';
import { cutText } from '../fit/plain-text';
import type { Draft } from './draft';
import { printedExtra } from './prints';
import { readPercentOff } from './relative';

const list = (said: string) =>
  said
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter(Boolean);

/** A name as part of an address: small letters, digits, single hyphens. */
export const handleOf = (said: string, max: number): string =>
  said
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, max)
    .replace(/-+$/, '');

const choiceKeys = new WeakMap<ExtraRule, Map<string, string>>();
/** Labels and ids of a list, by name key. */
function choiceOf(extra: ExtraRule, said: string): string | undefined {
  let map = choiceKeys.get(extra);
  if (!map) {
    map = new Map(
      (extra.values ?? []).flatMap((one) => [
        [nameKey(one.label), one.id] as const,
        [nameKey(one.id), one.id] as const,
      ]),
    );
    choiceKeys.set(extra, map);
  }
  return map.get(nameKey(said));
}

/** What was said in words, as the kind of value the field holds; undefined when the field has no such value. */
export function readExtra(extra: ExtraRule, said: string, item: Pick<Item, 'sku'>): Json | undefined {
  switch (extra.type) {
    case 'choice':
      return choiceOf(extra, said);
    case 'choices': {
      const ids = [...new Set(list(said).flatMap((one) => choiceOf(extra, one) ?? []))];
      return ids.length ? ids.slice(0, extra.maxItems ?? 99) : undefined;
    }
    case 'list':
      if (extra.form === 'contents') return fitContents(said, '', extra.maxItems ?? 99);
      return list(said).slice(0, extra.maxItems ?? 99);
    case 'boolean':
      return /^(yes|true|1|on)$/i.test(said) ? true : /^(no|false|0|off)$/i.test(said) ? false : undefined;
    case 'integer':
      if (said.trim() === 'suggested' && extra.suggested !== undefined) return 'suggested';
      return /^-?\d+$/.test(said.trim()) ? Number(said) : undefined;
    case 'money':
      return readPercentOff(said) === null ? (parseAmount(said, homeCurrency) ?? undefined) : said;
    case 'date':
      return /^\d{4}-\d{2}-\d{2}$/.test(said.trim()) ? said.trim() : undefined;
    case 'text':
      if (extra.form === 'handle') return handleOf(`${said} ${item.sku}`, extra.maxLength ?? 100);
      return extra.maxLength === null ? said : cutText(said, extra.maxLength).text;
  }
}

const unreadable: Partial<Record<ExtraRule['type'], string>> = {
  choice: 'This is none of its values',
  choices: 'These are none of its values',
  boolean: 'Write yes or no',
  integer: 'A whole number is needed',
  money: 'This is not an amount',
  date: 'Write the day as 2026-11-23',
};

/** Why words that hold no variables can never be a value of the field; null when they can. */
export const extraFault = (extra: ExtraRule, said: string): string | null =>
  said.trim() !== '' && readExtra(extra, said, { sku: '' }) === undefined ? (unreadable[extra.type] ?? null) : null;

/** What the item says for the field: an attribute of its name, or one of the places that the rules name. */
function fromItem(draft: Draft, extra: ExtraRule): Json | undefined {
  const { item } = draft;
  const named = ownValue(item.attributes, extra.label);
  if (named) {
    const read = readExtra(extra, named, item);
    if (read !== undefined) return read;
  }
  for (const place of extra.from ?? []) {
    const value = place === 'description' ? draft.plainDescription.replace(/\s*\n\s*/g, ' ') : placeOf(item, place);
    if (value === null || value === undefined || value === '') continue;
    if (typeof value === 'number' && (extra.type === 'money' || extra.type === 'integer')) {
      // A retail price that is no higher than the price is nothing to compare with.
      if (extra.against === 'above-price' && value <= (item.price ?? 0)) continue;
      return value;
    }
    const read = readExtra(extra, String(value), item);
    if (read !== undefined && read !== '') return read;
  }
  if (extra.form === 'contents')
    return fitContents(undefined, [item.brand, item.model].filter(Boolean).join(' ') || item.title, 1);
  return undefined;
}

function placeOf(item: Item, place: string): unknown {
  if (place.startsWith('attributes.')) return ownValue(item.attributes, place.slice('attributes.'.length));
  if (place === 'category') return item.category.split('/').at(-1)?.replace(/-/g, ' ');
  return (item as unknown as Record<string, unknown>)[place]; // fields named in the connector's rules
}

/** Their place for where the item is kept: that of the longest beginning of ours which the account knows. */
function mappedPlace({ account, item }: Draft, field: string): string | undefined {
  const places = Object.entries(account.maps[field] ?? {})
    .filter(([begins]) => item.location.toLowerCase().startsWith(begins.toLowerCase()))
    .sort(([a], [b]) => b.length - a.length);
  return places[0]?.[1];
}

/** Whether the marketplace's own suggestion is meant, whatever it is by now. */
const isSuggested = (extra: ExtraRule, value: Json): boolean => value === 'suggested' && extra.suggested !== undefined;

export type ExtraValue = ListingValue & { faults: Issue[] };

/** A marketplace's own field: written here, said by the item, by the template, by the account, or its own default. */
export function extraValue(draft: Draft, extra: ExtraRule): ExtraValue {
  const field = `extra.${extra.id}`;
  const of = (value: Json, origin: Origin, faults: Issue[] = []): ExtraValue => ({
    field,
    label: extra.label,
    issues: [],
    value,
    origin,
    faults,
    ...(isSuggested(extra, value) ? { value: Math.ceil(extra.suggested ?? 0), how: 'as suggested, rounded up' } : {}),
  });
  const written = draft.override(field);
  if (written !== undefined) return of(written, 'override');
  const mapped = mappedPlace(draft, field);
  if (mapped !== undefined) return of(mapped, 'account');
  const printed = draft.prints && printedExtra(draft.prints, extra);
  if (printed !== undefined && printed !== null) return of(printed, 'template');
  const said = fromItem(draft, extra);
  if (said !== undefined) return of(said, extra.from || extra.form ? 'fitted' : 'master');
  const template = draft.fromTemplate(field, 'plain');
  if (template) {
    const read = template.text === null ? null : (readExtra(extra, template.text, draft.item) ?? template.text);
    return of(read, 'template', template.faults);
  }
  const fromAccount = ownValue(draft.account.defaults, extra.id);
  if (fromAccount !== undefined && fromAccount !== null && fromAccount !== '') return of(fromAccount, 'account');
  return of(extra.fallback, 'rule');
}

/** Is the field needed, because it always is, because the category demands it, or because another field says so? */
export function isNeeded(
  extra: ExtraRule,
  compiled: CompiledRules,
  categoryId: unknown,
  valueIn: (field: string) => Json | undefined,
): boolean {
  if (extra.required) return true;
  if (compiled.categoryById.get(String(categoryId ?? ''))?.demands?.includes(extra.id)) return true;
  const { requiredWhen } = extra;
  return requiredWhen !== undefined && requiredWhen.values.includes(String(valueIn(requiredWhen.field) ?? ''));
}
