import { z } from 'zod';
import { ownValue } from '../../json';
import { type CompiledRules, nameKey } from '../../rules/compiled';
import type { CategoryRule } from '../../rules/rules';

/** Own category → the marketplace's category id, as chosen by the user for one marketplace. */
export type CategoryMap = Record<string, string>;

export const categorySuggestionSchema = z.object({
  id: z.string(),
  path: z.array(z.string()),
  score: z.number(),
  why: z.string(),
});
export type CategorySuggestion = z.infer<typeof categorySuggestionSchema>;

const stem = (word: string) => nameKey(word).replace(/(?<=.{3})s$/, '');
const wordsOf = (text: string) =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .map(stem)
    .filter((word) => word.length > 1 && !fillers.has(word));
const fillers = new Set(['and', 'or', 'of', 'with', 'for', 'the', 'from', 'on', 'in', 'old', 'new', 'other', 'more']);

/** Words of the trade that name the same thing: what the item says → what the tree may call it. */
const alike: Record<string, string[]> = {
  slr: ['reflex', 'mirror', 'single'],
  rangefinder: ['viewfinder'],
  meter: ['exposure', 'light'],
  outfit: ['set', 'kit', 'complete'],
  strap: ['neck', 'wrist'],
  black: ['monochrome'],
  manual: ['handbook', 'instruction', 'guide'],
  print: ['picture', 'photograph'],
  framed: ['frame'],
  compact: ['pocket'],
  folding: ['bellow', 'folder'],
  box: ['medium'],
  len: ['optic', 'lense'],
  lense: ['optic', 'len'],
  book: ['reading'],
  film: ['roll', 'stock'],
  bag: ['case'],
};

type Leaf = { category: CategoryRule; name: Set<string>; path: Set<string> };
type Index = { leaves: Leaf[]; byWord: Map<string, Leaf[]> };
const indexes = new WeakMap<CompiledRules, Index>();

/** Leaves by the words of their names and paths, made once per tree. */
function indexOf(compiled: CompiledRules): Index {
  const known = indexes.get(compiled);
  if (known) return known;
  const leaves = compiled.rules.categories
    .filter((category) => category.leaf)
    .map(
      (category): Leaf => ({
        category,
        name: new Set(wordsOf(category.name)),
        path: new Set(category.path.slice(0, -1).flatMap(wordsOf)),
      }),
    );
  const byWord = new Map<string, Leaf[]>();
  for (const leaf of leaves)
    for (const word of new Set([...leaf.name, ...leaf.path])) byWord.set(word, [...(byWord.get(word) ?? []), leaf]);
  const made = { leaves, byWord };
  indexes.set(compiled, made);
  return made;
}

export type Said = { ownCategory: string; title: string; brand?: string; attributes?: Record<string, string> };

/**
 * Leaves of the tree that fit what the item says of itself, best first, with the reason. How: every leaf is known by
 * the words of its own name (counting double) and of the path above. A word of the item's own category counts three,
 * of its title one, of its attributes a half; words that name the same thing count three quarters of that; the share
 * of the leaf's name that was met decides between equals. A leaf that was chosen before for a neighbouring own
 * category counts two more.
 */
export function suggestCategories(
  compiled: CompiledRules,
  item: Said,
  earlier: CategoryMap = {},
  most = 3,
): CategorySuggestion[] {
  const index = indexOf(compiled);
  const words = new Map<string, { weight: number; as: string }>();
  const say = (text: string, weight: number) => {
    for (const word of wordsOf(text)) {
      if ((words.get(word)?.weight ?? 0) < weight) words.set(word, { weight, as: word });
      for (const other of ownValue(alike, word) ?? [])
        if ((words.get(other)?.weight ?? 0) < weight * 0.75) words.set(other, { weight: weight * 0.75, as: word });
    }
  };
  for (const value of Object.values(item.attributes ?? {})) say(value, 0.25);
  say(item.title, 1);
  say(item.ownCategory, 3);
  for (const word of wordsOf(item.brand ?? '')) words.delete(word);

  const scores = new Map<Leaf, { score: number; met: Set<string>; named: number }>();
  for (const [word, { weight }] of words) {
    for (const leaf of index.byWord.get(word) ?? []) {
      const one = scores.get(leaf) ?? { score: 0, met: new Set<string>(), named: 0 };
      one.score += weight * (leaf.name.has(word) ? 2 : 1);
      one.named += leaf.name.has(word) ? 1 : 0;
      one.met.add(word);
      scores.set(leaf, one);
    }
  }
  const family = item.ownCategory.split('/')[0] ?? '';
  const chosen = new Map<string, string>();
  if (family) for (const [own, id] of Object.entries(earlier)) if (own.split('/')[0] === family) chosen.set(id, own);
  return [...scores]
    .map(([leaf, { score, met, named }]): CategorySuggestion => {
      const own = chosen.get(leaf.category.id);
      const reasons = [`shares ${[...met].join(', ')}`, ...(own ? [`chosen before for ${own}`] : [])];
      return {
        id: leaf.category.id,
        path: leaf.category.path,
        score: score + named / Math.max(1, leaf.name.size) + (own ? 2 : 0),
        why: reasons.join('; '),
      };
    })
    .filter((suggestion) => suggestion.score >= 1)
    .sort((a, b) => b.score - a.score || (a.id < b.id ? -1 : 1))
    .slice(0, most);
}

/**
 * The category that fits best, with how certain it is: the share of its score in that of the two best, in percent. 50
 * where the second one fits just as well, 100 where there is no other.
 */
export function certainCategory(
  compiled: CompiledRules,
  item: Said,
  earlier: CategoryMap = {},
): { id: string; certainty: number } | null {
  const [best, next] = suggestCategories(compiled, item, earlier, 2);
  return best ? { id: best.id, certainty: Math.round((100 * best.score) / (best.score + (next?.score ?? 0))) } : null;
}
