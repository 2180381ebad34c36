import { sameJson } from '../json';
import type { MarketRules } from './rules';

export type RuleChange = { place: string; from: unknown; to: unknown };

/** What changed between two versions of a marketplace's rules, place by place, categories by their path. */
export function compareRules(before: MarketRules, after: MarketRules): RuleChange[] {
  const changes: RuleChange[] = [];
  const keys = new Set([...Object.keys(before), ...Object.keys(after)] as (keyof MarketRules)[]);
  for (const key of keys) {
    if (key === 'version' || key === 'categories' || sameJson(before[key], after[key])) continue;
    changes.push({ place: key, from: before[key], to: after[key] });
  }
  const oldCategories = new Map(before.categories.map((category) => [category.id, category]));
  const newCategories = new Map(after.categories.map((category) => [category.id, category]));
  for (const [id, category] of oldCategories) {
    const now = newCategories.get(id);
    const place = `category ${category.path.join(' › ')}`;
    if (!now) changes.push({ place, from: category.name, to: null });
    else if (!sameJson(category, now)) changes.push({ place, from: category.attributes, to: now.attributes });
  }
  for (const [id, category] of newCategories) {
    if (!oldCategories.has(id))
      changes.push({ place: `category ${category.path.join(' › ')}`, from: null, to: category.name });
  }
  return changes;
}
