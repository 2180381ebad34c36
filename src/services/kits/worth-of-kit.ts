import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { findPrice, usualWorth, type WorthLot, worthInputSchema, worthOf, worthSchema } from '../../core/kit';
import { database } from '../../db/client';
import { openAccount } from '../records/accounts/open-account';
import { today } from '../records/accounts/today';
import { freshSince, hearEntry, knownSales } from './entry-sales';
import { lotsOf } from './find-kit';
import { loadKit } from './load-kit';

export const worthOfKitSchema = worthInputSchema
  .extend({
    /** The set in the catalogue, by which its price is found where none is given. */
    entry: z.string().trim().max(60).default(''),
  })
  .strict();

export const worthOfKitAnswer = worthSchema.extend({
  wholePrice: z.number().nullable(),
  /** How many sales, or offers, the price of a whole set is from; null where it was given. */
  wholeCount: z.number().nullable(),
});

/** Sold in parts or whole, by what comparable things sold for, the account's fees, and the hours that it takes. */
export async function worthOfKit(
  id: number,
  { entry, ...input }: z.output<typeof worthOfKitSchema>,
): Promise<z.infer<typeof worthOfKitAnswer>> {
  const db = database();
  const kit = await loadKit(db, id);
  if (kit.accountId === null)
    throw new NettingError('invalid', 'These sets belong to no catalogue: nobody tells what fees they would cost');
  const open = await openAccount(kit.accountId);
  const { rules } = open.account.compiled;
  const lots = (await lotsOf(db, id))
    .filter((lot) => lot.state !== 'out')
    .map(
      ({ quantity, price, basis }): WorthLot => ({
        quantity,
        price,
        paceDays: basis?.paceDays ?? null,
        perDay: basis?.pieces && basis.days ? basis.pieces / basis.days : null,
        others: basis?.onOffer ?? 0,
      }),
    );
  const found = input.wholePrice === null && entry ? await priceOfWhole(open, entry) : null;
  const wholePrice = input.wholePrice ?? found?.found ?? null;
  const worth = worthOf(lots, rules.fees, { ...input, wholePrice });
  return { ...worth, wholePrice, wholeCount: found?.count ?? null };
}

async function priceOfWhole(open: Awaited<ReturnType<typeof openAccount>>, entry: string) {
  const { market } = open.account.row;
  if (!(await knownSales(database(), market, [entry], freshSince())).has(entry)) await hearEntry(open, entry);
  const told = (await knownSales(database(), market, [entry], null)).get(entry)?.told;
  const how = { measure: 'median' as const, days: 180 as const, least: 3 };
  return told ? findPrice({ condition: null, finish: '' }, told, how, () => usualWorth.good, today()) : null;
}
