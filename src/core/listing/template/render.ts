import { Liquid, type Template as Parsed, UndefinedVariableError } from 'liquidjs';
import { fileNameOf } from '../../artwork/stands';
import { askedFieldIds, itemFieldEntries } from '../../field/item-fields';
import { conditionLabel } from '../../item/condition';
import { ownText } from '../../item/custom-fields';
import type { Item } from '../../item/item';
import { amountToText } from '../../measure/money';
import { formatWeight } from '../../measure/weight';
import { escapeHtml } from '../fit/escape-html';

/**
 * Liquid, locked down: no files (partials are looked up in an empty object), only own properties, every missing variable
 * an error, and bounds on length, time and memory. The time is a last resort against loops in loops: what a listing
 * becomes must not hang on how busy the machine is.
 */
const engine = new Liquid({
  templates: {},
  strictFilters: true,
  strictVariables: true,
  lenientIf: true,
  ownPropertyOnly: true,
  parseLimit: 20_000,
  renderLimit: 2_000,
  memoryLimit: 2_000_000,
});

const parsed = new Map<string, Parsed[] | Error>();
const mostKept = 2_000;

function parse(text: string): Parsed[] | Error {
  const known = parsed.get(text);
  if (known) return known;
  let made: Parsed[] | Error;
  try {
    made = engine.parse(text);
  } catch (error) {
    made = error instanceof Error ? error : new Error(String(error));
  }
  if (parsed.size >= mostKept) parsed.clear();
  parsed.set(text, made);
  return made;
}

const slugs = new Map<string, string>();

/** The name of an attribute as a template names it; the same few names are asked for with every item. */
function slug(name: string): string {
  const known = slugs.get(name);
  if (known !== undefined) return known;
  const made = name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '_')
    .replace(/^_+|_+$/g, '');
  if (slugs.size >= mostKept) slugs.clear();
  slugs.set(name, made);
  return made;
}

/** A variable's value; undefined when the item does not say it, so that using it is an error and not an empty hole. */
const filled = (text: string): string | undefined => (text.trim() === '' ? undefined : text);

/**
 * What a template may speak of. For rich text every value is escaped, save the description, which is clean already.
 * @param description the item's description in the form of the marketplace
 */
export function variablesOf(
  item: Item,
  shop: string,
  description: string,
  format: 'rich' | 'plain',
): Record<string, unknown> {
  const safe = (text: string) => filled(format === 'rich' ? escapeHtml(text) : text);
  const attributes = Object.fromEntries(
    Object.entries(item.attributes).flatMap(([name, value]) => {
      const said = safe(value);
      return said === undefined ? [] : [[slug(name), said]];
    }),
  );
  const own = Object.fromEntries(
    Object.entries(item.own).flatMap(([key, value]) => {
      const said = safe(ownText(value));
      return said === undefined ? [] : [[key, said]];
    }),
  );
  const asked = Object.fromEntries(
    askedFieldIds.map((id) => [slug(itemFieldEntries[id].label), safe(String(item[id]))]),
  );
  const all: Record<string, unknown> = {
    ...attributes,
    ...asked,
    attributes,
    own,
    expires_on: item.expiresOn ?? undefined,
    title: safe(item.title),
    category: safe(item.category),
    condition: safe(conditionLabel(item.condition)),
    condition_note: safe(item.conditionNote),
    description: filled(description),
    highlights: item.highlights.length ? item.highlights.map((one) => safe(one) ?? '') : undefined,
    keywords: item.keywords.length ? item.keywords.map((one) => safe(one) ?? '') : undefined,
    price: item.price === null ? undefined : amountToText(item.price, item.currency),
    retail_price: item.retailPrice === null ? undefined : amountToText(item.retailPrice, item.currency),
    currency: item.currency,
    stock_number: safe(item.sku),
    file_name: safe(fileNameOf(item)),
    barcode: safe(item.barcode),
    weight: item.weightGrams === null ? undefined : formatWeight(item.weightGrams),
    shop: safe(shop),
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined));
}

/** What a template reads as, or why it cannot be filled. */
export type Rendered =
  | { text: string; problem: null }
  | { text: null; problem: { kind: 'missing' | 'broken'; what: string } };

/** Fills a template. Pure: the same text and variables give the same result. */
export function render(text: string, variables: Record<string, unknown>): Rendered {
  if (!text.includes('{')) return { text, problem: null };
  const template = parse(text);
  if (template instanceof Error) return { text: null, problem: { kind: 'broken', what: sentence(template) } };
  try {
    return { text: String(engine.renderSync(template, variables)), problem: null };
  } catch (error) {
    const missing =
      error instanceof UndefinedVariableError ? error : (error as { originalError?: unknown }).originalError;
    if (missing instanceof UndefinedVariableError)
      return {
        text: null,
        problem: {
          kind: 'missing',
          what: /undefined variable: ([\w.[\]"' -]+)/.exec(missing.message)?.[1]?.trim() ?? '',
        },
      };
    return { text: null, problem: { kind: 'broken', what: sentence(error) } };
  }
}

const sentence = (error: unknown) =>
  (error instanceof Error ? error.message : String(error))
    .split('\n')[0]
    ?.replace(/, line:.*$/, '')
    .slice(0, 160) ?? '';

/** Why a template's text cannot be used at all, or null. */
export function templateFault(text: string): string | null {
  const made = parse(text);
  return made instanceof Error ? sentence(made) : null;
}
