import { eq } from 'drizzle-orm';
import { database } from '../../src/db/client';
import { account, entrySales, kitLot } from '../../src/db/schema';
import type { Actor } from '../../src/services/access/actor';
import { priceLots } from '../../src/services/kits/price-lots';
import { type PricingResult, pricingStep } from '../../src/services/kits/pricing-step';
import { createKit } from '../../src/services/kits/save-kit';
import { claimTask } from '../../src/services/tasks/claim-task';
import { type Figure, limitFigure } from './measure';

const grades = ['sealed', 'complete', 'used', 'parts'];
const finishes = ['black', 'chrome', 'plain'];
const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);

/** P13p: a thousand lots priced from sales that were heard already: what it takes beside the marketplace's rate limit. */
export async function pricingLots(actor: Actor, count: number): Promise<Figure[]> {
  const db = database();
  const [shop] = await db.select({ id: account.id }).from(account).where(eq(account.market, 'lotbarn'));
  if (!shop) throw new Error('no account with sets');
  const { id: kitId } = await createKit(actor, { name: 'A thousand lots', account: shop.id, totalCost: null });
  const entries = Array.from({ length: count }, (_, at) => `B${at}`);
  for (let at = 0; at < count; at += 250) {
    const some = entries.slice(at, at + 250);
    await db.insert(kitLot).values(
      some.map((entry, index) => ({
        kitId,
        entry,
        name: `Part ${entry}`,
        finish: finishes[index % 3] ?? '',
        sort: `kind ${index % 12}`,
        condition: 'good' as const,
        quantity: 3,
        grams: 20,
        price: null,
        comment: '',
        place: '',
        state: 'open' as const,
        from: [],
        itemId: null,
      })),
    );
    await db.insert(entrySales).values(
      some.map((entry, index) => ({
        market: 'lotbarn',
        entry,
        readAt: new Date(),
        told: {
          sales: Array.from({ length: 60 }, (_, sale) => ({
            price: 200 + ((index * 37 + sale * 61) % 900),
            quantity: 1 + (sale % 3),
            date: day((sale * 7) % 400),
            condition: grades[sale % 4] ?? '',
            finish: finishes[sale % 3] ?? '',
            daysOnSale: sale,
          })),
          offers: Array.from({ length: 6 }, (_, offer) => ({
            price: 300 + offer * 40,
            quantity: 1,
            condition: grades[offer % 4] ?? '',
          })),
        },
      })),
    );
  }
  await priceLots(actor, kitId, {
    how: {
      measure: 'median',
      days: 180,
      least: 3,
      basisPoints: -500,
      amount: 0,
      rounding: 'none',
      leastNet: 50,
      worth: {},
    },
    anew: false,
  });
  const began = performance.now();
  let task = await claimTask('bench');
  while (task && task.state === 'running') task = await pricingStep(task, 'bench');
  const tookMs = performance.now() - began;
  const { priced } = (task?.result ?? { priced: 0 }) as PricingResult; // its own step has written it
  if (priced !== count) throw new Error(`${priced} of ${count} lots were priced`);
  return [limitFigure(`P13p ${count} lots priced from what was heard`, tookMs, 5_000)];
}
