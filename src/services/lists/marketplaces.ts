import type { z } from 'zod';
import { fieldsFor } from '../../core/field';
import type { Json } from '../../core/json';
import { homeCurrency } from '../../core/measure';
import { knotLabels } from '../../core/sync';
import { database } from '../../db/client';
import { findLinks, type findLinksSchema } from '../listings/links/find-links';
import { findRenewals, type findRenewalsSchema } from '../listings/renewal/find-renewals';
import { accountNames } from '../records/accounts/account-names';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { findDrift, type findDriftSchema } from '../sync/find-drift';
import { findGone } from '../sync/find-gone';
import { findOffers, type findOffersSchema } from '../sync/find-offers';
import { heads, type ListFile, money, pages } from './list-file';

const portion = 200;
const all = 100_000;

/** What marketplaces show otherwise than it was sent: a row for each field, with both sides. */
export const driftList: ListFile<Omit<z.output<typeof findDriftSchema>, 'after' | 'limit'>> = {
  name: 'differences',
  columns: heads('account', 'stock number', 'title', 'field', 'sent', 'ours', 'theirs', 'changed on', 'link'),
  async *rows(filter) {
    const db = database();
    const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
    const catalogue = fieldsFor(await loadCustomFields(db));
    for await (const { listings } of pages<number, Awaited<ReturnType<typeof findDrift>>>((after) =>
      findDrift({ ...filter, after, limit: portion }),
    ))
      for (const one of listings) {
        const account = accounts.get(one.accountId);
        for (const { field, sent, ours, theirs, verdict } of one.fields) {
          const known = catalogue.listing(field);
          const text = (value: Json) =>
            known
              ? known.show(value, { currency: account?.compiled.rules.currency ?? homeCurrency })
              : value === null
                ? ''
                : JSON.stringify(value);
          const sides = verdict === 'conflict' ? 'both sides' : 'the marketplace';
          yield [
            account?.name,
            one.sku,
            one.title,
            known?.label ?? field,
            text(sent),
            text(ours),
            text(theirs),
            sides,
            one.url,
          ];
        }
      }
  },
};

/** What we want live and is not there any more. */
export const goneList: ListFile<unknown> = {
  name: 'not-there',
  columns: heads('account', 'stock number', 'title', 'in stock#', 'sold there', 'since'),
  async *rows() {
    const names = await accountNames();
    for (const one of (await findGone(all)).gone)
      yield [names.get(one.accountId), one.sku, one.title, one.quantity, one.wasSold ? 'yes' : '', one.since];
  },
};

/** What buyers would pay. */
export const offerList: ListFile<Omit<z.output<typeof findOffersSchema>, 'limit'>> = {
  name: 'offers',
  columns: heads(
    'account',
    'stock number',
    'title',
    'offered#',
    'asked#',
    'left#',
    'currency',
    'buyer',
    'words',
    'state',
    'countered with#',
    'made',
    'until',
    'answered by',
  ),
  async *rows(filter) {
    for (const one of (await findOffers({ ...filter, limit: all })).offers)
      yield [
        one.accountName,
        one.sku,
        one.title,
        money(one.amount, one.currency),
        money(one.asked, one.currency),
        money(one.net, one.currency),
        one.currency,
        one.buyer,
        one.words,
        one.state,
        money(one.counter, one.currency),
        one.madeAt,
        one.deadline,
        one.answeredBy,
      ];
  },
};

/** Own stock numbers beside the marketplaces’ numbers, also those of before. */
export const linkList: ListFile<Omit<z.output<typeof findLinksSchema>, 'after' | 'limit'>> = {
  name: 'links',
  columns: heads('account', 'stock number', 'title', 'listing number', 'state', 'link', 'numbers before'),
  async *rows(filter) {
    const names = await accountNames();
    for await (const { links } of pages<number, Awaited<ReturnType<typeof findLinks>>>((after) =>
      findLinks({ ...filter, after, limit: portion }),
    ))
      for (const one of links)
        yield [
          names.get(one.accountId),
          one.sku,
          one.title,
          one.remoteId,
          knotLabels[one.state],
          one.url,
          one.previous.map((before) => before.remoteId).join(', '),
        ];
  },
};

/** Live listings by age. */
export const renewalList: ListFile<Omit<z.output<typeof findRenewalsSchema>, 'from' | 'limit'>> = {
  name: 'renewal',
  columns: heads(
    'account',
    'stock number',
    'title',
    'live since',
    'days#',
    'they renew on',
    'times made#',
    'why not now',
    'last renewal',
    'its reason',
  ),
  async *rows(filter) {
    const names = await accountNames();
    for await (const { unsettled, listings } of pages<number, Awaited<ReturnType<typeof findRenewals>>>((from = 0) =>
      findRenewals({ ...filter, from, limit: portion }),
    ))
      for (const one of [...unsettled, ...listings])
        yield [
          names.get(one.accountId),
          one.sku,
          one.title,
          one.liveSince,
          one.days,
          one.renewsAt,
          one.timesMade,
          one.blocks,
          one.job?.state,
          one.job?.message,
        ];
  },
};
