import { z } from 'zod';
import { sameJson } from '../json';
import type { MarketRules } from './rules';

export const ruleChangeSchema = z.object({
  path: z.string(),
  from: z.unknown(),
  to: z.unknown(),
});
export type RuleChange = z.infer<typeof ruleChangeSchema>;

/** What changed between two versions of a marketplace's rules, place by path, categories by their path. */
export function compareRules(before: MarketRules, after: MarketRules): RuleChange[] {
  const changes: RuleChange[] = [];
  const keys = new Set([...Object.keys(before), ...Object.keys(after)] as (keyof MarketRules)[]);
  for (const key of keys) {
    if (key === 'version' || key === 'categories' || sameJson(before[key], after[key])) continue;
    changes.push({ path: key, from: before[key], to: after[key] });
  }
  const oldCategories = new Map(before.categories.map((category) => [category.id, category]));
  const newCategories = new Map(after.categories.map((category) => [category.id, category]));
  for (const [id, category] of oldCategories) {
    const now = newCategories.get(id);
    const path = `category ${category.path.join(' › ')}`;
    if (!now) changes.push({ path, from: category.name, to: null });
    else if (!sameJson(category, now)) changes.push({ path, from: category.attributes, to: now.attributes });
  }
  for (const [id, category] of newCategories) {
    if (!oldCategories.has(id))
      changes.push({ path: `category ${category.path.join(' › ')}`, from: null, to: category.name });
  }
  return changes;
}
