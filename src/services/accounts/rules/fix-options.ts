import { z } from 'zod';
import type { Item } from '../../../core/item';
import { type CategorySuggestion, type Issue, suggestCategories } from '../../../core/listing';
import { formatMoney } from '../../../core/measure';
import type { LoadedAccount } from '../../records/accounts/load-accounts';

export const choiceSchema = z.object({
  id: z.string(),
  label: z.string(),
});
export type Choice = z.infer<typeof choiceSchema>;

/** How one fix can be carried out for many: not at all from here, by one click, or by choosing or writing a value. */
export const fixModes = ['item', 'click', 'choose', 'write'] as const;
type FixMode = (typeof fixModes)[number];

/** What can be chosen for a price that does not fit: the nearest one that does, or not to sell it there. */
export const nearestPrice = 'nearest';
export const endThere = 'end';

const suggestionsFor = (account: LoadedAccount, item: Item): CategorySuggestion[] =>
  suggestCategories(
    account.compiled,
    { ownCategory: item.category, title: item.title, brand: item.brand, attributes: item.attributes },
    account.categoryMap,
  );

/** What can be chosen or written to mend an issue for all listings that share it. */
export function fixOptions(account: LoadedAccount, issue: Issue, item: Item): { how: FixMode; choices: Choice[] } {
  const { rules } = account.compiled;
  const { kind } = issue.fix;
  if (kind === 'map-category') {
    const first = suggestionsFor(account, item).map(({ id, path }) => ({ id, label: path.join(' › ') }));
    const leaves = rules.categories.filter((one) => one.leaf && !first.some((known) => known.id === one.id));
    return { how: 'choose', choices: [...first, ...leaves.map(({ id, path }) => ({ id, label: path.join(' › ') }))] };
  }
  if (kind === 'find-product' || issue.code === 'title-long' || issue.code === 'title-pattern')
    return { how: 'click', choices: [] };
  // Before the way in which a price comes about: what is written for this account stands before any rule.
  if (issue.code === 'price-range' && rules.price) {
    const money = (amount: number) => formatMoney(amount, rules.currency);
    const { min, max } = rules.price;
    return {
      how: 'choose',
      choices: [
        { id: nearestPrice, label: `Raise to ${money(min)}; what is dearer than ${money(max)} down to it` },
        { id: endThere, label: `End them on ${account.name}` },
      ],
    };
  }
  if (kind === 'edit-template' || kind === 'pricing') return { how: 'item', choices: [] };
  if (issue.field.startsWith('attr.')) {
    const attribute = rules.categories.flatMap((one) => one.attributes).find((one) => `attr.${one.id}` === issue.field);
    if (!attribute) return { how: 'item', choices: [] };
    return attribute.values
      ? { how: 'choose', choices: attribute.values.map((value) => ({ id: value, label: value })) }
      : { how: 'write', choices: [] };
  }
  if (issue.field.startsWith('extra.')) {
    const extra = rules.extras.find((one) => `extra.${one.id}` === issue.field);
    if (extra?.values) return { how: 'choose', choices: extra.values.map(({ id, label }) => ({ id, label })) };
    return { how: extra?.type === 'text' || extra?.type === 'date' ? 'write' : 'item', choices: [] };
  }
  if (issue.field === 'condition' && kind === 'edit-override') return { how: 'choose', choices: rules.conditions };
  if (issue.code === 'description-long' || issue.code === 'note-long') return { how: 'click', choices: [] };
  return { how: 'item', choices: [] };
}
