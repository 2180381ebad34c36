import { z } from 'zod';
import { holdAccounts, holdAccountsSchema } from '../../services/accounts/hold-accounts';
import { accountPaceSchema, setAccountPace } from '../../services/accounts/set-account-pace';
import { copyShop } from '../../services/listings/copy-shop';
import { cutLinks } from '../../services/listings/cut-links';
import { findLinks, findLinksSchema } from '../../services/listings/find-links';
import { findRenewals, findRenewalsSchema } from '../../services/listings/find-renewals';
import { findUnlinked } from '../../services/listings/find-unlinked';
import { makeLinks, makeLinksSchema } from '../../services/listings/make-links';
import { copyShopSchema, planCopy } from '../../services/listings/plan-copy';
import { planRenewal } from '../../services/listings/plan-renewal';
import { renew } from '../../services/listings/renew';
import { renewSchema } from '../../services/listings/renewal-facts';
import { renewalPlanSchema, setRenewalRule } from '../../services/listings/set-renewal-rule';
import { cancelScheduled } from '../../services/outbox/cancel-scheduled';
import { findScheduled } from '../../services/outbox/find-scheduled';
import { publishLater, publishLaterSchema } from '../../services/outbox/publish-later';
import { resumeRun } from '../../services/outbox/resume-run';
import { stopRun } from '../../services/outbox/stop-run';
import { recheckListings } from '../../services/records/recheck-listings';
import { cancelSale } from '../../services/stock/cancel-sale';
import { findMovements } from '../../services/stock/find-movements';
import { forgetBuyers, forgetBuyersSchema } from '../../services/stock/forget-buyers';
import { compareAccount } from '../../services/sync/compare-account';
import { findDrift, findDriftSchema } from '../../services/sync/find-drift';
import { findGone } from '../../services/sync/find-gone';
import { driftRuleSchema, setDriftRule } from '../../services/sync/set-drift-rule';
import { settleDrift, settleSchema } from '../../services/sync/settle-drift';
import { settleGone, settleGoneSchema } from '../../services/sync/settle-gone';
import { endpoint } from '../endpoint';

const id = (params: Record<string, number>) => z.number().parse(params.id);

export const syncEndpoints = [
  endpoint({
    method: 'POST',
    path: '/publish/later',
    tag: 'Publishing',
    summary: 'Publish at a time',
    body: publishLaterSchema.extend({ title: z.string().trim().min(1).max(200) }),
    run: ({ actor, body: { title, ...input } }) => publishLater(actor, input, title),
  }),
  endpoint({
    method: 'GET',
    path: '/scheduled',
    tag: 'Publishing',
    summary: 'What is to be published at a later time',
    run: () => findScheduled(),
  }),
  endpoint({
    method: 'POST',
    path: '/scheduled/{id}/cancel',
    tag: 'Publishing',
    summary: 'Call off what is to be published later',
    body: z.object({}).strict(),
    run: ({ actor, params }) => cancelScheduled(actor, id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/copies/plan',
    tag: 'Publishing',
    summary: 'What copying a shop would bring, and what is there already',
    body: copyShopSchema,
    run: async ({ body }) => {
      const { ids: _ids, ...plan } = await planCopy(body);
      return plan;
    },
  }),
  endpoint({
    method: 'POST',
    path: '/copies',
    tag: 'Publishing',
    summary: 'Copy chosen listings or a whole shop to another marketplace',
    body: copyShopSchema,
    run: ({ actor, body }) => copyShop(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/stop',
    tag: 'Jobs',
    summary: 'Hold what a run has not sent yet',
    body: z.object({}).strict(),
    run: ({ actor, params }) => stopRun(actor, id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/resume',
    tag: 'Jobs',
    summary: 'Let a held run go on',
    body: z.object({}).strict(),
    run: ({ actor, params }) => resumeRun(actor, id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/accounts/hold',
    tag: 'Accounts',
    summary: 'Stop sending to accounts, or let it go on',
    body: holdAccountsSchema,
    run: ({ actor, body }) => holdAccounts(actor, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/pace',
    tag: 'Accounts',
    summary: 'How fast an account is used and how much of the stock it offers',
    body: accountPaceSchema,
    async run({ actor, params, body }) {
      const { stockChanged } = await setAccountPace(actor, id(params), body);
      if (stockChanged) await recheckListings(id(params));
    },
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/drift-rules',
    tag: 'Sync',
    summary: 'What is done when only they changed a field',
    body: driftRuleSchema,
    run: ({ actor, params, body }) => setDriftRule(actor, id(params), body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/renewal',
    tag: 'Renewal',
    summary: 'Which listings are renewed by themselves, and how many a day',
    body: renewalPlanSchema,
    run: ({ actor, params, body }) => setRenewalRule(actor, id(params), body),
  }),
  endpoint({
    method: 'POST',
    path: '/accounts/{id}/compare',
    tag: 'Sync',
    summary: 'Compare everything that an account shows with what we hold',
    body: z.object({}).strict(),
    run: ({ params }) => compareAccount(id(params)),
  }),
  endpoint({
    method: 'GET',
    path: '/drift',
    tag: 'Sync',
    summary: 'Listings that they show differently from what we sent, field by field',
    query: findDriftSchema,
    run: ({ query }) => findDrift(query),
  }),
  endpoint({
    method: 'POST',
    path: '/drift/settle',
    tag: 'Sync',
    summary: 'Theirs or ours, on one listing or for all of a kind',
    body: settleSchema,
    run: ({ actor, body }) => settleDrift(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/gone',
    tag: 'Sync',
    summary: 'Listings that are wanted, have stock and are not there any more',
    run: () => findGone(),
  }),
  endpoint({
    method: 'POST',
    path: '/gone/settle',
    tag: 'Sync',
    summary: 'End here what is gone there, or make it again',
    body: settleGoneSchema,
    run: ({ actor, body }) => settleGone(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/links',
    tag: 'Links',
    summary: 'Own stock number and the marketplace’s number',
    query: findLinksSchema,
    run: ({ query }) => findLinks(query),
  }),
  endpoint({
    method: 'POST',
    path: '/links/cut',
    tag: 'Links',
    summary: 'Cut links; their listings stay as they are',
    body: z.object({ listings: z.array(z.number().int()).min(1).max(2_000) }).strict(),
    run: ({ actor, body }) => cutLinks(actor, body.listings),
  }),
  endpoint({
    method: 'GET',
    path: '/accounts/{id}/unlinked',
    tag: 'Links',
    summary: 'What is live there and linked with nothing, each with the item that it seems to be',
    run: ({ params }) => findUnlinked(id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/links',
    tag: 'Links',
    summary: 'Link listings that are there with items',
    body: makeLinksSchema,
    run: ({ actor, body }) => makeLinks(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/renewals',
    tag: 'Renewal',
    summary: 'Live listings by age: due, longest unrenewed, newest',
    query: findRenewalsSchema,
    run: ({ query }) => findRenewals(query),
  }),
  endpoint({
    method: 'POST',
    path: '/renewals/plan',
    tag: 'Renewal',
    summary: 'What renewing would cost and what blocks it',
    body: renewSchema,
    run: ({ body }) => planRenewal(body),
  }),
  endpoint({
    method: 'POST',
    path: '/renewals',
    tag: 'Renewal',
    summary: 'End listings and make them anew',
    body: renewSchema,
    run: ({ actor, body }) => renew(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/stock',
    tag: 'Items',
    summary: 'The stock ledger of an item, and what every account offers of it',
    run: ({ params }) => findMovements(id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/sales/forget-buyers',
    tag: 'Sales',
    summary: 'Take the buyers’ towns out of old sales',
    body: forgetBuyersSchema,
    run: ({ actor, body }) => forgetBuyers(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/sales/{id}/cancel',
    tag: 'Sales',
    summary: 'Call an order off: there first, then the stock comes back',
    body: z.object({}).strict(),
    run: ({ actor, params }) => cancelSale(actor, id(params)),
  }),
];
