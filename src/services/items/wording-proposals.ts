import { z } from 'zod';
import {
  computedWording,
  glossaryWording,
  type Proposal,
  type WordingMaker,
  type WordingWish,
} from '../../core/wording';
import { database } from '../../db/client';
import { loadAccounts } from '../records/accounts/load-accounts';
import { readSettings } from '../records/accounts/read-settings';
import { loadItem } from '../records/items/load-items';

/** Who makes proposals, in this order. A maker of one's own, such as a language model or a translator, is a line here. */
export const wordingMakers: readonly WordingMaker[] = [glossaryWording, computedWording];

export const wordingSchema = z.object({ account: z.coerce.number().int().positive().optional() }).strict();

const fields = ['title', 'tags', 'highlights', 'description'] as const;

/** Proposals for an item's wording, for one account by its limits and search counts, or for the item itself. */
export async function wordingProposals(
  itemId: number,
  { account: accountId }: z.infer<typeof wordingSchema>,
): Promise<{ proposals: Proposal[] }> {
  const db = database();
  const item = await loadItem(db, itemId);
  const accounts = await loadAccounts(db, accountId ? [accountId] : undefined);
  const [shop] = accountId ? accounts : [];
  const rules = shop?.compiled.rules;
  // For the item itself: the longest title that most accounts take, and whatever buyers were counted looking for anywhere.
  const searches: Record<string, number> = {};
  for (const { compiled } of accounts)
    for (const [word, count] of Object.entries(compiled.rules.tags?.searches ?? {}))
      searches[word] = Math.max(searches[word] ?? 0, count);
  const wishes: Record<(typeof fields)[number], [maxLength: number, maxItems: number] | null> = {
    title: rules ? rules.title && [rules.title.max, 1] : [75, 1],
    tags: rules ? rules.tags && [rules.tags.maxLength, rules.tags.max] : [24, 12],
    highlights: rules ? rules.highlights && [rules.highlights.maxLength, rules.highlights.max] : [80, 7],
    description: rules ? rules.description && [rules.description.max, 1] : [4_000, 1],
  };
  const category = shop ? shop.compiled.categoryById.get(shop.categoryMap[item.category] ?? '') : undefined;
  const language = shop?.row.language ?? '';
  const terms = language === '' ? [] : ((await readSettings(db)).glossaries[language] ?? []);
  const proposals: Proposal[] = [];
  for (const maker of wordingMakers) {
    for (const field of fields) {
      const limits = wishes[field];
      if (!limits) continue;
      const wish: WordingWish = {
        item,
        field,
        maxLength: limits[0],
        maxItems: limits[1],
        searches,
        categoryWords: category?.path ?? [],
        language,
        terms,
      };
      const proposal = await maker.propose(wish);
      if (proposal.parts.length) proposals.push(proposal);
    }
  }
  return { proposals };
}
