import { z } from 'zod';
import { insightTableSchema } from '../../core/insight';
import { homeCurrency } from '../../core/measure';
import { findBest } from './find-best';
import { findEffects } from './find-effects';
import { findMoney } from './find-money';
import { findSpeed } from './find-speed';
import { findStock } from './find-stock';
import type { InsightQuery } from './query';
import { readFacts } from './read-facts';

const views = { money: findMoney, stock: findStock, speed: findSpeed, best: findBest, effects: findEffects };
export const insightSchema = z.object({
  currency: z.string(),
  /** All that was moved and changed is in it; else it is still being read. */
  isWhole: z.boolean(),
  tables: z.array(insightTableSchema),
});

/** A view of what was sold, bought and done within a period. */
export async function findInsight(query: InsightQuery): Promise<z.infer<typeof insightSchema>> {
  const { facts, isWhole } = await readFacts();
  return { currency: homeCurrency, isWhole, tables: await views[query.view](facts, query) };
}
