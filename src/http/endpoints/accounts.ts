import { z } from 'zod';
import { foundProductSchema } from '../../core/listing/map/product';
import { connectByKey, connectByKeySchema } from '../../services/accounts/connect/connect-by-key';
import { accountViewSchema, findAccounts, marketChoiceSchema } from '../../services/accounts/find-accounts';
import { holdAccounts, holdAccountsSchema } from '../../services/accounts/hold-accounts';
import { addMapping, addMappingSchema } from '../../services/accounts/mapping/add-mapping';
import { chooseProduct, chooseProductSchema } from '../../services/accounts/mapping/choose-product';
import { findMappings, mappingSchema } from '../../services/accounts/mapping/find-mappings';
import { findProducts, findProductsSchema } from '../../services/accounts/mapping/find-products';
import { forgetMapping, forgetMappingSchema } from '../../services/accounts/mapping/forget-mapping';
import { lookUpProduct, lookUpQuerySchema, lookUpSchema } from '../../services/accounts/mapping/look-up-product';
import { mapCategory, mapCategorySchema } from '../../services/accounts/mapping/map-category';
import { ruleChanges, ruleChangesSchema } from '../../services/accounts/rules/rule-changes';
import { accountPaceSchema, setAccountPace } from '../../services/accounts/set-account-pace';
import { updateAccount, updateAccountSchema } from '../../services/accounts/update-account';
import { recheckListings } from '../../services/records/listings/recheck-listings';
import { done, endpoint } from '../endpoint';

const market = z.object({ market: z.string().min(1).max(40) }).strict();

/** Accounts, their marketplaces’ rules and what was matched with them. */
export const accountsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/accounts',
    tag: 'Accounts',
    role: 'packer',
    summary: 'Connected accounts, and the marketplaces that can be connected',
    answer: z.object({ accounts: z.array(accountViewSchema), available: z.array(marketChoiceSchema) }),
    run: () => findAccounts(),
  }),
  endpoint({
    method: 'POST',
    path: '/accounts',
    tag: 'Accounts',
    role: 'owner',
    summary: 'Connect an account by its API key',
    body: connectByKeySchema,
    answer: z.object({ accountId: z.number(), isFirst: z.boolean() }),
    run: ({ actor, body }) => connectByKey(actor, body),
  }),
  endpoint({
    method: 'PATCH',
    path: '/accounts/{id}',
    tag: 'Accounts',
    role: 'seller',
    summary: 'Change name, footer and defaults',
    body: updateAccountSchema,
    answer: done,
    run: ({ actor, params, body }) => updateAccount(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/categories',
    tag: 'Accounts',
    role: 'seller',
    summary: 'Say which category there stands for one of ours',
    body: mapCategorySchema,
    answer: done,
    run: ({ actor, params, body }) => mapCategory(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/pace',
    tag: 'Accounts',
    role: 'seller',
    summary: 'How fast an account is used and how much of the stock it offers',
    body: accountPaceSchema,
    answer: done,
    async run({ actor, params, body }) {
      const { stockChanged } = await setAccountPace(actor, params.id, body);
      if (stockChanged) await recheckListings(params.id);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/accounts/hold',
    tag: 'Accounts',
    role: 'seller',
    summary: 'Stop sending to accounts, or let it go on',
    body: holdAccountsSchema,
    answer: done,
    run: ({ actor, body }) => holdAccounts(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/rules',
    tag: 'Rules',
    role: 'seller',
    summary: 'What changed in a marketplace’s rules, and which listings no longer fit, by cause',
    query: market,
    answer: ruleChangesSchema,
    run: ({ query }) => ruleChanges(query.market),
  }),
  endpoint({
    method: 'GET',
    path: '/mappings',
    tag: 'Rules',
    role: 'seller',
    summary: 'What was learned of a marketplace: categories, properties, values, products',
    query: market,
    answer: z.object({ known: z.array(mappingSchema) }),
    run: ({ query }) => findMappings(query.market),
  }),
  endpoint({
    method: 'POST',
    path: '/mappings',
    tag: 'Rules',
    role: 'seller',
    summary: 'Match one of our names or values with one of theirs',
    body: addMappingSchema,
    answer: done,
    run: ({ actor, body }) => addMapping(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/mappings/forget',
    tag: 'Rules',
    role: 'seller',
    summary: 'Take back something that was learned',
    body: forgetMappingSchema,
    answer: done,
    run: ({ body }) => forgetMapping(body),
  }),
  endpoint({
    method: 'GET',
    path: '/catalogues',
    tag: 'Items',
    role: 'packer',
    summary: 'Look a product up in the connected catalogues, by barcode, ISBN or name',
    query: lookUpQuerySchema,
    answer: lookUpSchema,
    run: ({ query }) => lookUpProduct(query),
  }),
  endpoint({
    method: 'POST',
    path: '/products/find',
    tag: 'Rules',
    role: 'packer',
    summary: 'Look items up in a marketplace’s catalogue',
    body: findProductsSchema,
    answer: z.object({
      found: z.number(),
      unsure: z.array(z.object({ itemId: z.number(), choices: z.array(foundProductSchema) })),
      missing: z.array(z.number()),
    }),
    run: ({ actor, body }) => findProducts(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/products/choose',
    tag: 'Rules',
    role: 'packer',
    summary: 'Say which entry of a catalogue an item is',
    body: chooseProductSchema,
    answer: done,
    run: ({ actor, body }) => chooseProduct(actor, body),
  }),
];
