import { conditionGrades } from '../../core/item/condition';
import {
  adjusted,
  findPrice,
  type KeptSales,
  kindPrice,
  type LotPricing,
  type PriceBasis,
  usualWorth,
} from '../../core/kit';
import { amountIn, homeAmount, homeCurrency } from '../../core/measure';
import { roundings } from '../../core/measure/rounding';
import { priceFor } from '../../core/price';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { today } from '../records/accounts/today';
import type { LotNow } from './find-kit';

type PricedLot = { lot: number; price: number; basis: PriceBasis };

export type FoundPrice = { lot: LotNow; price: ReturnType<typeof findPrice>; onOffer: number; heardAt: string };

/** What each lot is worth by what was told of its entry; in the shop's own currency. */
export function findPrices(
  lots: readonly LotNow[],
  told: ReadonlyMap<string, { told: KeptSales; readAt: Date }>,
  account: LoadedAccount,
  how: LotPricing,
): FoundPrice[] {
  const day = today();
  const { conditionMap } = account.compiled.rules;
  const worthOf = worthThere(conditionMap, how);
  return lots.map((lot) => {
    const known = told.get(lot.entry)?.told;
    const heard = known && atHome(known, account);
    const condition = lot.condition === null ? null : (conditionMap[lot.condition] ?? null);
    const price = heard ? findPrice({ condition, finish: lot.finish }, heard, how, worthOf, day) : null;
    // By the minute, in UTC.
    const heardAt = told.get(lot.entry)?.readAt.toISOString().slice(0, 16).replace('T', ' ') ?? '';
    return { lot, price, onOffer: heard?.offers.length ?? 0, heardAt };
  });
}

/** The prices that come of it: of lots that nothing was told of by others of their kind; moved, ended, not under the floor. */
export function settlePrices(found: readonly FoundPrice[], account: LoadedAccount, how: LotPricing): PricedLot[] {
  const floor = floorOf(account, how);
  const bySort = new Map<string, number[]>();
  for (const { lot, price } of found)
    if (price && lot.sort) bySort.set(lot.sort, [...(bySort.get(lot.sort) ?? []), price.found]);
  return found.flatMap(({ lot, price, onOffer, heardAt }): PricedLot[] => {
    const basis = price ?? kindPrice(bySort.get(lot.sort) ?? [], how.measure);
    if (!basis) return [];
    const { price: amount, isFloor } = adjusted(basis.found, how, floor);
    return [{ lot: lot.id, price: amount, basis: { ...basis, isFloor, onOffer, heardAt } }];
  });
}

/** The least price that leaves what is wanted after the account's fees; 0 where nothing is. */
function floorOf({ compiled, rate }: LoadedAccount, { leastNet, rounding }: LotPricing): number {
  if (leastNet === null) return 0;
  const { fees, currency } = compiled.rules;
  const there = amountIn(leastNet, currency, rate) ?? leastNet;
  const price = priceFor(
    {
      fees,
      cost: null,
      categoryId: null,
      liveCount: 0,
      weightGrams: null,
      sellerPaysPostage: false,
      packaging: 0,
    },
    { kind: 'net', amount: there },
    roundings[rounding],
  );
  return price === null ? 0 : (homeAmount(price, currency, rate) ?? 0);
}

/** What the marketplace's conditions are worth: the mean of the grades that are called so there. */
function worthThere(conditionMap: LoadedAccount['compiled']['rules']['conditionMap'], { worth }: LotPricing) {
  const known = new Map<string, number[]>();
  for (const { id } of conditionGrades) {
    const there = conditionMap[id];
    if (there) known.set(there, [...(known.get(there) ?? []), worth[id] ?? usualWorth[id]]);
  }
  return (condition: string): number | null => {
    const all = known.get(condition);
    return all ? all.reduce((sum, one) => sum + one, 0) / all.length : null;
  };
}

/** Amounts in the shop's own currency, by the rate of the day; without a rate nothing can be compared. */
function atHome(told: KeptSales, { compiled, rate }: LoadedAccount): KeptSales {
  const { currency } = compiled.rules;
  if (currency === homeCurrency) return told;
  const here = <T extends { price: number }>(one: T): T[] => {
    const price = homeAmount(one.price, currency, rate);
    return price === null ? [] : [{ ...one, price }];
  };
  return { sales: told.sales.flatMap(here), offers: told.offers.flatMap(here) };
}
