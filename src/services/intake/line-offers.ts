import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { productOf } from '../../core/listing';
import { homeAmount } from '../../core/measure';
import { database } from '../../db/client';
import { batchLine } from '../../db/schema';
import { connectorOf } from '../../markets';
import { sessionFor } from '../access/market-session';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import { loadItem } from '../records/items/load-items';

export const lineOffersSchema = z.object({
  /** The cheapest with delivery first; minor units of the shop's own currency. */
  offers: z.array(
    z.object({
      from: z.string(),
      condition: z.string(),
      ships: z.string(),
      price: z.number(),
      delivery: z.number(),
      quantity: z.number(),
    }),
  ),
  silent: z.array(z.string()),
});

const most = 12;

/** What others offer of a line's piece right now, on every marketplace that tells it, by condition and by who sends. */
export async function lineOffers(lineId: number): Promise<z.infer<typeof lineOffersSchema>> {
  const [line] = await database().select().from(batchLine).where(eq(batchLine.id, lineId));
  if (!line) throw new NettingError('not-found', 'There is no such line');
  if (line.itemId === null) return { offers: [], silent: [] };
  const item = await loadItem(database(), line.itemId);
  const accounts = await accountsAtHand();
  const byMarket = new Map(accounts.map((one) => [one.row.market, one]));
  // What was recognised a moment ago is told by the line, before it is kept for all such things.
  const [only, ...others] = line.found;
  const told = new Map(
    (only && others.length === 0 ? only.records : []).map(({ accountId, id }) => [
      accounts.find((one) => one.id === accountId)?.row.market,
      id,
    ]),
  );
  const silent: string[] = [];
  const found = await Promise.all(
    [...byMarket.values()].map(async (account) => {
      const connector = connectorOf(account.row.market);
      const { rules } = account.compiled;
      const product = productOf(account.products, item)?.id ?? told.get(account.row.market);
      if (!connector.presentOffers || product === undefined) return [];
      try {
        const session = sessionFor(account.row, rules.pacing.perMinute);
        const offers = await connector.presentOffers(session, product);
        return offers.flatMap(({ price, delivery = 0, quantity, condition, ships = '' }) => {
          const [own, besides] = [price, delivery].map((amount) => homeAmount(amount, rules.currency, account.rate));
          if (own === null || own === undefined || besides === null || besides === undefined) return [];
          const label = rules.conditions.find((one) => one.id === condition)?.label ?? condition;
          return [{ from: rules.name, condition: label, ships, price: own, delivery: besides, quantity }];
        });
      } catch (error) {
        silent.push(error instanceof NettingError ? error.message : `${rules.name} did not answer`);
        return [];
      }
    }),
  );
  const offers = found.flat().sort((a, b) => a.price + a.delivery - b.price - b.delivery);
  return { offers: offers.slice(0, most), silent };
}
