import { z } from 'zod';
import { renewalRuleSchema } from '../../core/sync';
import { copyShop } from '../../services/listings/copy/copy-shop';
import { modelListing, modelSchema } from '../../services/listings/copy/model-listing';
import { copyPlanSchema, copyShopSchema, planCopy } from '../../services/listings/copy/plan-copy';
import { fixAll } from '../../services/listings/fixes/fix-all';
import { fixAllSchema, fixSeenSchema } from '../../services/listings/fixes/fix-schema';
import { foreseeFix, foreseenFixSchema } from '../../services/listings/fixes/foresee-fix';
import { cutLinks } from '../../services/listings/links/cut-links';
import { findLinks, findLinksSchema, linkViewSchema } from '../../services/listings/links/find-links';
import { findUnlinked, unlinkedListingSchema } from '../../services/listings/links/find-unlinked';
import { makeLinks, makeLinksSchema } from '../../services/listings/links/make-links';
import { comparablesOf, comparablesQuerySchema, comparablesSchema } from '../../services/listings/prices/comparables';
import { pricePanel, pricePanelQuerySchema, pricePanelSchema } from '../../services/listings/prices/price-panel';
import { countLive, countLiveSchema, liveCountsSchema } from '../../services/listings/publish/count-live';
import { endListings, endListingsSchema } from '../../services/listings/publish/end-listings';
import { planPublish, publishPlanSchema } from '../../services/listings/publish/plan-publish';
import { publish, publishedSchema } from '../../services/listings/publish/publish';
import { publishSchema } from '../../services/listings/publish/publish-schema';
import { takeBackSending } from '../../services/listings/publish/take-back-sending';
import { targetListing, targetSchema } from '../../services/listings/publish/target-listing';
import { findRenewals, findRenewalsSchema, renewalsSchema } from '../../services/listings/renewal/find-renewals';
import { planRenewal, renewalPlanSchema } from '../../services/listings/renewal/plan-renewal';
import { renew } from '../../services/listings/renewal/renew';
import { renewSchema } from '../../services/listings/renewal/renewal-facts';
import { setRenewalRule } from '../../services/listings/renewal/set-renewal-rule';
import { done, endpoint } from '../endpoint';

/** Publishing, copying, linking, renewing, pricing. */
export const listingsEndpoints = [
  endpoint({
    method: 'POST',
    path: '/publish/plan',
    tag: 'Publishing',
    role: 'seller',
    summary: 'What would happen per item and account, what it costs, what is missing',
    body: publishSchema,
    answer: publishPlanSchema,
    run: ({ body }) => planPublish(body),
  }),
  endpoint({
    method: 'POST',
    path: '/publish',
    tag: 'Publishing',
    role: 'seller',
    summary: 'Send listings in the background',
    body: publishSchema,
    answer: publishedSchema,
    run: ({ actor, body }) => publish(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/listings/end/count',
    tag: 'Publishing',
    role: 'seller',
    summary: 'How many listings of the chosen items stand on each account',
    body: countLiveSchema,
    answer: liveCountsSchema,
    run: ({ body }) => countLive(body),
  }),
  endpoint({
    method: 'POST',
    path: '/runs/{id}/back',
    tag: 'Publishing',
    role: 'seller',
    summary: 'End what a publishing listed, or list again what an ending ended',
    body: z.object({}).strict(),
    answer: z.object({ runId: z.number(), queued: z.number() }),
    run: ({ actor, params }) => takeBackSending(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/listings/end',
    tag: 'Publishing',
    role: 'seller',
    summary: 'End listings',
    body: endListingsSchema,
    answer: z.object({ runId: z.number(), queued: z.number() }),
    run: ({ actor, body }) => endListings(actor, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/listings/{account}/target',
    tag: 'Listings',
    role: 'seller',
    summary: 'Add an account to an item, or leave it out',
    body: targetSchema,
    answer: done,
    run: ({ actor, params, body }) => targetListing(actor, params.id, params.account, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/listings/{account}/model',
    tag: 'Listings',
    role: 'seller',
    summary: 'Take another account’s version as the model for this one',
    body: modelSchema,
    answer: z.object({ taken: z.array(z.string()) }),
    run: ({ actor, params, body }) => modelListing(actor, params.id, params.account, body),
  }),
  endpoint({
    method: 'POST',
    path: '/copies/plan',
    tag: 'Publishing',
    role: 'seller',
    summary: 'What copying a shop would bring, and what is there already',
    body: copyShopSchema,
    answer: copyPlanSchema.omit({ ids: true }),
    run: async ({ body }) => {
      const { ids: _ids, ...plan } = await planCopy(body);
      return plan;
    },
  }),
  endpoint({
    method: 'POST',
    path: '/copies',
    tag: 'Publishing',
    role: 'seller',
    summary: 'Copy chosen listings or a whole shop to another marketplace',
    body: copyShopSchema,
    answer: publishedSchema.extend({ copied: z.number() }),
    run: ({ actor, body }) => copyShop(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/links',
    tag: 'Links',
    role: 'seller',
    summary: 'Own stock number and the marketplace’s number',
    query: findLinksSchema,
    answer: z.object({ links: z.array(linkViewSchema), next: z.number().nullable() }),
    run: ({ query }) => findLinks(query),
  }),
  endpoint({
    method: 'POST',
    path: '/links',
    tag: 'Links',
    role: 'seller',
    summary: 'Link listings that are there with items',
    body: makeLinksSchema,
    answer: z.object({ linked: z.number(), refused: z.array(z.object({ remoteId: z.string(), why: z.string() })) }),
    run: ({ actor, body }) => makeLinks(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/links/cut',
    tag: 'Links',
    role: 'seller',
    summary: 'Cut links; their listings stay as they are',
    body: z.object({ listings: z.array(z.number().int()).min(1).max(2_000) }).strict(),
    answer: z.object({ cut: z.number() }),
    run: ({ actor, body }) => cutLinks(actor, body.listings),
  }),
  endpoint({
    method: 'GET',
    path: '/accounts/{id}/unlinked',
    tag: 'Links',
    role: 'seller',
    summary: 'What is live there and linked with nothing, each with the item that it seems to be',
    answer: z.object({ unlinked: z.array(unlinkedListingSchema) }),
    run: ({ params }) => findUnlinked(params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/renewals',
    tag: 'Renewal',
    role: 'seller',
    summary: 'Live listings by age: due, longest unrenewed, newest',
    query: findRenewalsSchema,
    answer: renewalsSchema,
    run: ({ query }) => findRenewals(query),
  }),
  endpoint({
    method: 'POST',
    path: '/renewals/plan',
    tag: 'Renewal',
    role: 'seller',
    summary: 'What renewing would cost and what blocks it',
    body: renewSchema,
    answer: renewalPlanSchema,
    run: ({ body }) => planRenewal(body),
  }),
  endpoint({
    method: 'POST',
    path: '/renewals',
    tag: 'Renewal',
    role: 'seller',
    summary: 'End listings and make them anew',
    body: renewSchema,
    answer: z.object({ runId: z.number(), queued: z.number() }),
    run: ({ actor, body }) => renew(actor, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/renewal',
    tag: 'Renewal',
    role: 'seller',
    summary: 'Which listings are renewed by themselves, and how many a day',
    body: renewalRuleSchema,
    answer: z.object({ due: z.number() }),
    run: ({ actor, params, body }) => setRenewalRule(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/fixes/foreseen',
    tag: 'Rules',
    role: 'seller',
    summary: 'What a mend would make of the listings that it is for; nothing is changed',
    body: fixSeenSchema,
    answer: foreseenFixSchema,
    run: ({ body }) => foreseeFix(body),
  }),
  endpoint({
    method: 'POST',
    path: '/fixes',
    tag: 'Rules',
    role: 'seller',
    summary: 'One mend for every listing that does not fit for the same reason',
    body: fixAllSchema,
    answer: z.object({
      listings: z.number(),
      left: z.number(),
      queued: z.number(),
      /** What was written, to be taken back; null where nothing was. */
      runId: z.number().nullable(),
    }),
    run: ({ actor, body }) => fixAll(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/prices',
    tag: 'Prices',
    role: 'seller',
    summary: 'Per account: fees, postage, net, margin and return, and the price for a wanted one',
    query: pricePanelQuerySchema,
    answer: pricePanelSchema,
    run: ({ params, query }) => pricePanel(params.id, query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/comparables',
    tag: 'Prices',
    role: 'seller',
    summary: 'What such things sold for lately, with their statistics, and what is on offer now',
    query: comparablesQuerySchema,
    answer: comparablesSchema,
    run: ({ params, query }) => comparablesOf(params.id, query),
  }),
];
