import { ownValue } from '../../json';
import { nameKey } from '../../rules/compiled';
import { textLength } from './text-length';

export type FittedTags = { tags: string[]; lost: string[] };

export type TagLimits = {
  max: number;
  maxLength: number;
  letters: 'any' | 'words' | 'hashtag';
  /** How often buyers looked for a word lately, by name key: the most wanted come first. */
  searches?: Record<string, number>;
};

/** Two tags mean the same when only case, accents, blanks or a plural differ. */
export const tagMeaning = (tag: string): string =>
  nameKey(tag)
    .replace(/(?<=.{3})ies$/, 'y')
    .replace(/(?<=.{2}(?:s|x|ch|sh))es$/, '')
    .replace(/(?<=.{2}[^s])s$/, '');

/** A keyword in the letters that the marketplace takes: hashtags are one word, with nothing but letters and digits. */
export function cleanTag(keyword: string, letters: TagLimits['letters']): string {
  switch (letters) {
    case 'any':
      return keyword.trim();
    case 'words':
      return keyword
        .replace(/[^\p{L}\p{N} -]+/gu, ' ')
        .replace(/\s+/g, ' ')
        .trim();
    case 'hashtag':
      return keyword.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  }
}

/**
 * Keywords as a marketplace's tags: cleaned, doubles by meaning dropped, best first by what buyers search for (words
 * nobody counted keep their order behind), too long and too many left out. The house tag keeps the last place.
 */
export function fitTags(keywords: readonly string[], limits: TagLimits, houseTag = ''): FittedTags {
  const house = cleanTag(houseTag, limits.letters);
  const hasHouse = house !== '' && textLength(house) <= limits.maxLength && limits.max > 0;
  const seen = new Set<string>(hasHouse ? [tagMeaning(house)] : []);
  const lost: string[] = [];
  const fitting: { tag: string; keyword: string; wanted: number }[] = [];
  for (const keyword of keywords) {
    const tag = cleanTag(keyword, limits.letters);
    const key = tagMeaning(tag);
    if (key === '' || seen.has(key)) continue;
    seen.add(key);
    if (textLength(tag) > limits.maxLength) lost.push(keyword);
    else fitting.push({ tag, keyword, wanted: ownValue(limits.searches ?? {}, nameKey(tag)) ?? 0 });
  }
  // A stable sort: without counts the writer's own order stays.
  const sorted = limits.searches ? [...fitting].sort((a, b) => b.wanted - a.wanted) : fitting;
  const room = Math.max(0, limits.max - (hasHouse ? 1 : 0));
  lost.push(...sorted.slice(room).map((one) => one.keyword));
  const tags = sorted.slice(0, room).map((one) => one.tag);
  return { tags: hasHouse ? [...tags, house] : tags, lost };
}
