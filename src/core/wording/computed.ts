import { conditionLabel } from '../item/condition';
import { ownValue } from '../json';
import { escapeHtml } from '../listing/fit/escape-html';
import { tagMeaning } from '../listing/fit/tags';
import { textLength } from '../listing/fit/text-length';
import { nameKey } from '../rules/compiled';
import type { ProposedPart, WordingMaker, WordingWish } from './maker';

type Candidate = ProposedPart & { weight: number };

/** Properties that a buyer looks for before others; the rest follows in the order of the item. */
const telling = [
  'Film format',
  'Lens mount',
  'Focal length',
  'Largest aperture',
  'Size',
  'Colour',
  'Material',
  'Decade',
];

/** Short words of a category are mostly abbreviations: slr is written SLR. */
const kindOf = (category: string): string =>
  (category.split('/').at(-1) ?? '').replace(/-/g, ' ').replace(/\b[a-z]{1,3}\b/g, (word) => word.toUpperCase());

function searched(text: string, searches: Record<string, number>): number {
  const whole = ownValue(searches, nameKey(text)) ?? 0;
  const words = text.split(/\s+/).map((word) => ownValue(searches, nameKey(word)) ?? 0);
  return Math.max(whole, ...words);
}

function candidates({ item, searches, categoryWords }: WordingWish): Candidate[] {
  const times = (text: string) => {
    const count = searched(text, searches);
    return count ? `, looked for ${count.toLocaleString('en')} times` : '';
  };
  const found: Candidate[] = [];
  const say = (text: string, why: string, weight: number) => {
    const clean = text.trim();
    if (clean)
      found.push({ text: clean, why: why + times(clean), weight: weight + Math.log10(1 + searched(clean, searches)) });
  };
  say(item.brand, 'the brand', 100);
  say(item.model, 'the model', 90);
  say(kindOf(item.category), 'what it is, from its category', 80);
  const rank = (name: string) => {
    const at = telling.indexOf(name);
    return at < 0 ? telling.length : at;
  };
  for (const [name, value] of Object.entries(item.attributes).sort(([a], [b]) => rank(a) - rank(b)))
    if (value.length <= 40 && !/^(yes|no|true|false)$/i.test(value))
      say(value, name.toLowerCase(), 60 - rank(name) * 3);
  const leaf = categoryWords.at(-1);
  if (leaf) say(leaf, 'the word this marketplace has for it', 25);
  for (const keyword of item.keywords) say(keyword, 'one of your keywords', 20);
  return found.sort((a, b) => b.weight - a.weight);
}

const wordKeys = (text: string) =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map(tagMeaning);

/** Takes candidates, best first, as long as they fit and say something new. */
function title(wish: WordingWish): ProposedPart[] {
  const said = new Set<string>();
  const parts: ProposedPart[] = [];
  let length = 0;
  for (const { text: whole, why } of candidates(wish)) {
    // Words that were said already are not said again; what is left of a few letters says nothing by itself.
    const text = whole
      .split(/\s+/)
      .filter((word) => !wordKeys(word).length || wordKeys(word).some((key) => !said.has(key)))
      .join(' ');
    const keys = wordKeys(text);
    if (keys.length === 0 || (text !== whole && keys.join('').length < 3)) continue;
    const more = textLength(text) + (parts.length ? 1 : 0);
    if (length + more > wish.maxLength) continue;
    parts.push({ text, why });
    length += more;
    for (const key of keys) said.add(key);
  }
  return parts;
}

function tags(wish: WordingWish): ProposedPart[] {
  const { item, searches } = wish;
  const kind = kindOf(wish.item.category);
  const pairs: Candidate[] = [];
  if (item.brand && kind) pairs.push({ text: `${item.brand} ${kind}`, why: 'brand and kind together', weight: 50 });
  if (item.brand && item.model)
    pairs.push({ text: `${item.brand} ${item.model}`, why: 'brand and model together', weight: 55 });
  const all = [...pairs, ...candidates(wish)].map((one) => ({
    ...one,
    weight: searched(one.text, searches) * 1_000 + one.weight,
  }));
  const seen = new Set<string>();
  return all
    .sort((a, b) => b.weight - a.weight)
    .filter(({ text }) => {
      const key = tagMeaning(text);
      if (!key || seen.has(key) || textLength(text) > wish.maxLength) return false;
      seen.add(key);
      return true;
    })
    .slice(0, wish.maxItems)
    .map(({ text, why }) => ({ text: text.toLowerCase(), why }));
}

function highlights(wish: WordingWish): ProposedPart[] {
  const { item } = wish;
  const lines: ProposedPart[] = Object.entries(item.attributes)
    .filter(([, value]) => value.trim() !== '' && !/^(no|false)$/i.test(value))
    .map(([name, value]) => ({
      text: /^(yes|true)$/i.test(value) ? name : `${name}: ${value}`,
      why: `from the attribute ${name.toLowerCase()}`,
    }));
  if (item.condition)
    lines.unshift({ text: `Condition: ${conditionLabel(item.condition).toLowerCase()}`, why: 'from its grade' });
  return lines.filter(({ text }) => textLength(text) <= wish.maxLength).slice(0, wish.maxItems);
}

function description(wish: WordingWish): ProposedPart[] {
  const { item } = wish;
  const name = [item.brand, item.model].filter(Boolean).join(' ');
  const kind = kindOf(item.category);
  const parts: ProposedPart[] = [];
  const opening = [name, kind && (name ? `, ${kind}` : kind)].filter(Boolean).join('');
  if (opening) parts.push({ text: `<p>${escapeHtml(opening)}.</p>`, why: 'brand, model and what it is' });
  const facts = Object.entries(item.attributes).filter(([, value]) => value.trim() !== '');
  if (facts.length)
    parts.push({
      text: `<ul>${facts.map(([label, value]) => `<li>${escapeHtml(label)}: ${escapeHtml(value)}</li>`).join('')}</ul>`,
      why: 'its attributes, one a line',
    });
  if (item.condition)
    parts.push({
      text: `<p>Condition: ${escapeHtml(conditionLabel(item.condition).toLowerCase())}.</p>`,
      why: 'its grade',
    });
  const kept: ProposedPart[] = [];
  let length = 0;
  for (const part of parts) {
    if (length + textLength(part.text) > wish.maxLength) continue;
    length += textLength(part.text);
    kept.push(part);
  }
  return kept;
}

/**
 * The maker that comes with Netting: nothing but what the item says of itself, ordered by what tells most and by what
 * buyers looked for. The same wish gives the same proposal.
 */
export const computedWording: WordingMaker = {
  name: 'computed from the item',
  propose(wish) {
    const { field } = wish;
    const parts = { title, tags, highlights, description }[field](wish);
    const texts = parts.map((part) => part.text);
    const value = field === 'title' ? texts.join(' ') : field === 'description' ? texts.join('') : texts;
    return { field, parts, value, maker: this.name };
  },
};
