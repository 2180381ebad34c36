import { z } from 'zod';
import { offerRuleSchema } from '../../core/price/offer-rule';
import { answerOffer, answerOfferSchema } from '../../services/sync/answer-offer';
import { compareAccount, comparisonSchema } from '../../services/sync/compare-account';
import { driftViewSchema, findDrift, findDriftSchema } from '../../services/sync/find-drift';
import { findGone, goneViewSchema } from '../../services/sync/find-gone';
import { findOffers, findOffersSchema, offerViewSchema } from '../../services/sync/find-offers';
import { driftRuleSchema, setDriftRule } from '../../services/sync/set-drift-rule';
import { setOfferRule } from '../../services/sync/set-offer-rule';
import { settleDrift, settleSchema } from '../../services/sync/settle-drift';
import { settleGone, settleGoneSchema } from '../../services/sync/settle-gone';
import { done, endpoint } from '../endpoint';

/** What marketplaces show otherwise than we hold. */
export const syncEndpoints = [
  endpoint({
    method: 'GET',
    path: '/offers',
    tag: 'Offers',
    role: 'seller',
    summary: 'What buyers would pay, with what would be left of it',
    query: findOffersSchema,
    answer: z.object({ offers: z.array(offerViewSchema) }),
    run: ({ query }) => findOffers(query),
  }),
  endpoint({
    method: 'POST',
    path: '/offers/{id}/answer',
    tag: 'Offers',
    role: 'seller',
    summary: 'Accept, decline or counter an offer',
    body: answerOfferSchema,
    answer: z.object({ state: z.string() }),
    run: ({ actor, params, body }) => answerOffer(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/offers',
    tag: 'Offers',
    role: 'seller',
    summary: 'Which offers are taken and declined by themselves there',
    body: offerRuleSchema,
    answer: done,
    run: ({ actor, params, body }) => setOfferRule(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/drift-rules',
    tag: 'Sync',
    role: 'seller',
    summary: 'What is done when only they changed a field',
    body: driftRuleSchema,
    answer: z.object({ settled: z.number() }),
    run: ({ actor, params, body }) => setDriftRule(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/accounts/{id}/compare',
    tag: 'Sync',
    role: 'seller',
    summary: 'Compare everything that an account shows with what we hold',
    body: z.object({}).strict(),
    answer: comparisonSchema,
    run: ({ params }) => compareAccount(params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/drift',
    tag: 'Sync',
    role: 'seller',
    summary: 'Listings that they show differently from what we sent, field by field',
    query: findDriftSchema,
    answer: z.object({ listings: z.array(driftViewSchema), next: z.number().nullable() }),
    run: ({ query }) => findDrift(query),
  }),
  endpoint({
    method: 'POST',
    path: '/drift/settle',
    tag: 'Sync',
    role: 'seller',
    summary: 'Theirs or ours, on one listing or for all of a kind',
    body: settleSchema,
    answer: z.object({ settled: z.number(), next: z.number().nullable().describe('Where all of a kind goes on') }),
    run: ({ actor, body }) => settleDrift(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/gone',
    tag: 'Sync',
    role: 'seller',
    summary: 'Listings that are wanted, have something to offer and are not there any more',
    answer: z.object({ gone: z.array(goneViewSchema) }),
    run: () => findGone(),
  }),
  endpoint({
    method: 'POST',
    path: '/gone/settle',
    tag: 'Sync',
    role: 'seller',
    summary: 'End here what is gone there, or make it again',
    body: settleGoneSchema,
    answer: z.object({ settled: z.number() }),
    run: ({ actor, body }) => settleGone(actor, body),
  }),
];
