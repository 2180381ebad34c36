import type { Item } from '../../core/item';
import type { Issue } from '../../core/listing';
import { database } from '../../db/client';
import { type PlannedAccount, type PlannedKnot, planPortions } from './plan-portions';
import type { Publish } from './publish-schema';

export type PublishPlan = {
  /** How many items were chosen; the first of them are listed. */
  itemCount: number;
  items: { id: number; sku: string; title: string; photo: string | null }[];
  knots: PlannedKnot[];
  accounts: PlannedAccount[];
  causes: {
    message: string;
    accountId: number;
    field: string;
    count: number;
    firstItem: number;
    fix: Issue['fix'];
  }[];
};

const shownItems = 300;

/** What would happen per item and account, what it costs, how long it takes, what is not ready and why. Nothing is changed. */
export async function planPublish(input: Publish): Promise<PublishPlan> {
  const causes = new Map<string, PublishPlan['causes'][number]>();
  const shown: Item[] = [];
  const knots: PlannedKnot[] = [];
  const { itemCount, accounts } = await planPortions(database(), input, async (some, items) => {
    countCauses(causes, some);
    const room = shownItems - shown.length;
    if (room <= 0) return;
    const first = items.slice(0, room);
    const ids = new Set(first.map((one) => one.id));
    shown.push(...first);
    knots.push(...some.filter((knot) => ids.has(knot.itemId)));
  });
  return {
    itemCount,
    items: shown.map(({ id, sku, title, photos }) => ({ id, sku, title, photo: photos[0]?.hash ?? null })),
    knots,
    accounts,
    causes: [...causes.values()].sort((a, b) => b.count - a.count),
  };
}

function countCauses(causes: Map<string, PublishPlan['causes'][number]>, knots: PlannedKnot[]): void {
  for (const { accountId, itemId, issues } of knots) {
    for (const { message, field, fix, blocks } of issues) {
      if (!blocks) continue;
      const key = `${accountId}/${field}/${message}`;
      const cause = causes.get(key) ?? { message, accountId, field, fix, count: 0, firstItem: itemId };
      cause.count++;
      causes.set(key, cause);
    }
  }
}
