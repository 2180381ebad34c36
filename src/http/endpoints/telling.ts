import { z } from 'zod';
import { addBox, boxSchema } from '../../services/accounts/add-box';
import { addMapping, addMappingSchema } from '../../services/accounts/add-mapping';
import { chooseProduct, chooseProductSchema } from '../../services/accounts/choose-product';
import { findBoxes } from '../../services/accounts/find-boxes';
import { findMappings } from '../../services/accounts/find-mappings';
import { findProducts, findProductsSchema } from '../../services/accounts/find-products';
import { forgetMapping, forgetMappingSchema } from '../../services/accounts/forget-mapping';
import { forgetRate, forgetRateSchema } from '../../services/accounts/forget-rate';
import { quoteParcel, quoteSchema } from '../../services/accounts/quote-parcel';
import { rateHistory } from '../../services/accounts/rate-history';
import { recordPostage, shipmentSchema } from '../../services/accounts/record-postage';
import { refreshRates } from '../../services/accounts/refresh-rates';
import { refreshTariffs } from '../../services/accounts/refresh-tariffs';
import { removeBox } from '../../services/accounts/remove-box';
import { ruleChanges } from '../../services/accounts/rule-changes';
import { previewItem } from '../../services/items/preview-item';
import { titleProposals, titleProposalsSchema } from '../../services/items/title-proposals';
import { comparablesOf, comparablesSchema } from '../../services/listings/comparables';
import { findTemplates } from '../../services/listings/find-templates';
import { fixAll } from '../../services/listings/fix-all';
import { fixAllSchema } from '../../services/listings/fix-schema';
import { pricePanel, pricePanelSchema } from '../../services/listings/price-panel';
import { removeTemplate } from '../../services/listings/remove-template';
import { saveTemplate } from '../../services/listings/save-template';
import { templateSchema } from '../../services/listings/template-input';
import { tryTemplate } from '../../services/listings/try-template';
import { endpoint } from '../endpoint';

const id = (params: Record<string, number>) => z.number().parse(params.id);
const market = z.object({ market: z.string().min(1).max(40) }).strict();
const tryIt = templateSchema.extend({ id: z.number().int().positive().nullable().default(null) });

/** Telling an item in each marketplace's way: templates, what was learned, rules, prices, postage. */
export const tellingEndpoints = [
  endpoint({
    method: 'GET',
    path: '/items/{id}/preview',
    tag: 'Items',
    summary: 'What each account would get of an item: every value with its origin, and what a buyer would see',
    run: ({ params }) => previewItem(id(params)),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/titles',
    tag: 'Items',
    summary: 'Up to three ways to say the title within a limit, each with what it loses',
    query: titleProposalsSchema,
    run: ({ params, query }) => titleProposals(id(params), query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/prices',
    tag: 'Prices',
    summary: 'Per account: fees, postage, net, margin and return, and the price for a wanted one',
    query: pricePanelSchema,
    run: ({ params, query }) => pricePanel(id(params), query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/comparables',
    tag: 'Prices',
    summary: 'What such things sold for lately, with their statistics, and what is on offer now',
    query: comparablesSchema,
    run: ({ params, query }) => comparablesOf(id(params), query),
  }),
  endpoint({
    method: 'GET',
    path: '/rules',
    tag: 'Rules',
    summary: 'What changed in a marketplace’s rules, and which listings no longer fit, by cause',
    query: market,
    run: ({ query }) => ruleChanges(query.market),
  }),
  endpoint({
    method: 'POST',
    path: '/fixes',
    tag: 'Rules',
    summary: 'One mend for every listing that does not fit for the same reason',
    body: fixAllSchema,
    run: ({ actor, body }) => fixAll(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/mappings',
    tag: 'Rules',
    summary: 'What was learned of a marketplace: categories, properties, values, products',
    query: market,
    run: ({ query }) => findMappings(query.market),
  }),
  endpoint({
    method: 'POST',
    path: '/mappings',
    tag: 'Rules',
    summary: 'Match one of our names or values with one of theirs',
    body: addMappingSchema,
    run: ({ actor, body }) => addMapping(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/mappings/forget',
    tag: 'Rules',
    summary: 'Take back something that was learned',
    body: forgetMappingSchema,
    run: ({ body }) => forgetMapping(body),
  }),
  endpoint({
    method: 'POST',
    path: '/products/find',
    tag: 'Rules',
    summary: 'Look items up in a marketplace’s catalogue',
    body: findProductsSchema,
    run: ({ actor, body }) => findProducts(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/products/choose',
    tag: 'Rules',
    summary: 'Say which entry of a catalogue an item is',
    body: chooseProductSchema,
    run: ({ actor, body }) => chooseProduct(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/templates',
    tag: 'Templates',
    summary: 'Templates with their conditions',
    run: () => findTemplates(),
  }),
  endpoint({
    method: 'POST',
    path: '/templates',
    tag: 'Templates',
    summary: 'Make a template',
    body: templateSchema,
    run: ({ actor, body }) => saveTemplate(actor, null, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/templates/{id}',
    tag: 'Templates',
    summary: 'Change a template, for all items or for new ones only',
    body: templateSchema,
    run: ({ actor, params, body }) => saveTemplate(actor, id(params), body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/templates/{id}',
    tag: 'Templates',
    summary: 'Remove a template; listings are computed without it',
    run: ({ params }) => removeTemplate(id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/templates/try',
    tag: 'Templates',
    summary: 'Which listings a template would change, and how; nothing is kept',
    body: tryIt,
    run: ({ body: { id: known, ...input } }) => tryTemplate(known, input),
  }),
  endpoint({
    method: 'GET',
    path: '/boxes',
    tag: 'Postage',
    summary: 'Boxes of one’s own',
    run: async () => ({ boxes: await findBoxes() }),
  }),
  endpoint({
    method: 'POST',
    path: '/boxes',
    tag: 'Postage',
    summary: 'Add a box; inside measures',
    body: boxSchema,
    run: ({ body }) => addBox(body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/boxes/{id}',
    tag: 'Postage',
    summary: 'Remove a box',
    run: ({ params }) => removeBox(id(params)),
  }),
  endpoint({
    method: 'GET',
    path: '/postage',
    tag: 'Postage',
    summary: 'What each carrier asks for a parcel',
    query: quoteSchema,
    run: async ({ query }) => ({ quotes: await quoteParcel(query) }),
  }),
  endpoint({
    method: 'POST',
    path: '/postage',
    tag: 'Postage',
    summary: 'Write down what a parcel really cost',
    body: shipmentSchema,
    run: ({ body }) => recordPostage(body),
  }),
  endpoint({
    method: 'POST',
    path: '/postage/tariffs',
    tag: 'Postage',
    summary: 'Read the carriers’ tariffs anew',
    run: async () => ({ carriers: await refreshTariffs() }),
  }),
  endpoint({
    method: 'GET',
    path: '/rates',
    tag: 'Prices',
    summary: 'Exchange rates with their day, newest first',
    run: async () => ({ rates: await rateHistory() }),
  }),
  endpoint({
    method: 'POST',
    path: '/rates',
    tag: 'Prices',
    summary: 'Ask for today’s rates',
    run: async () => ({ rates: await refreshRates() }),
  }),
  endpoint({
    method: 'POST',
    path: '/rates/forget',
    tag: 'Prices',
    summary: 'Take a day’s rate back: the one before holds again',
    body: forgetRateSchema,
    run: ({ body }) => forgetRate(body),
  }),
];
