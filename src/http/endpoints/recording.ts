import { z } from 'zod';
import { lookUpProduct, lookUpSchema } from '../../services/accounts/look-up-product';
import { takeOver, takeOverSchema } from '../../services/changes/take-over';
import { returnChange } from '../../services/items/bring-back';
import { findOpenItems, openItemsSchema } from '../../services/items/find-open-items';
import { invitePhone } from '../../services/items/invite-phone';
import { numberItem } from '../../services/items/number-item';
import { customFieldKeySchema, removeCustomField } from '../../services/items/remove-custom-field';
import { newCustomFieldSchema, saveCustomField } from '../../services/items/save-custom-field';
import { saveSettings } from '../../services/items/save-settings';
import { splitVariations, splitVariationsSchema } from '../../services/items/split-variations';
import { wordingProposals, wordingSchema } from '../../services/items/wording-proposals';
import { modelListing, modelSchema } from '../../services/listings/model-listing';
import { targetListing, targetSchema } from '../../services/listings/target-listing';
import { knownWords } from '../../services/records/known-words';
import { loadCustomFields } from '../../services/records/load-custom-fields';
import { readSettings, shopSettingsSchema } from '../../services/records/read-settings';
import { endpoint } from '../endpoint';

const id = (params: Record<string, number>, name = 'id') => z.number().parse(params[name]);

/** Recording items: what helps while one is written. */
export const recordingEndpoints = [
  endpoint({
    method: 'GET',
    path: '/catalogues',
    tag: 'Items',
    summary: 'Look a product up in the connected catalogues, by barcode, ISBN or name',
    query: lookUpSchema,
    run: ({ query }) => lookUpProduct(query),
  }),
  endpoint({
    method: 'GET',
    path: '/words',
    tag: 'Items',
    summary: 'Brands, categories, suppliers and places that stand in the inventory already',
    run: () => knownWords(),
  }),
  endpoint({
    method: 'GET',
    path: '/open-items',
    tag: 'Items',
    summary: 'Items that are worked on in one sitting, with what is unfinished',
    query: openItemsSchema,
    run: ({ query }) => findOpenItems(query),
  }),
  endpoint({
    method: 'POST',
    path: '/items/take-over',
    tag: 'Items',
    summary: 'Take fields of one item over into others',
    body: takeOverSchema,
    run: ({ actor, body }) => takeOver(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/number',
    tag: 'Items',
    summary: 'Give the item a new stock number by the pattern',
    run: ({ actor, params }) => numberItem(actor, id(params)),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/split',
    tag: 'Items',
    summary: 'Make items of their own of some combinations; their units move',
    body: splitVariationsSchema,
    run: ({ actor, params, body }) => splitVariations(actor, id(params), body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/phone',
    tag: 'Items',
    summary: 'Let a phone on the same network add photos for a quarter of an hour',
    run: ({ actor, params }) => invitePhone(actor, id(params)),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/wording',
    tag: 'Items',
    summary: 'Proposals for title, tags, highlights and description, with the reason for every part',
    query: wordingSchema,
    run: ({ params, query }) => wordingProposals(id(params), query),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/history/{change}/return',
    tag: 'Items',
    summary: 'Bring one field back to what it was before a change',
    run: ({ actor, params }) => returnChange(actor, id(params), id(params, 'change')),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/listings/{account}/place',
    tag: 'Listings',
    summary: 'Add an account to an item, or leave it out',
    body: targetSchema,
    run: ({ actor, params, body }) => targetListing(actor, id(params), id(params, 'account'), body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/listings/{account}/model',
    tag: 'Listings',
    summary: 'Take another account’s version as the model for this one',
    body: modelSchema,
    run: ({ actor, params, body }) => modelListing(actor, id(params), id(params, 'account'), body),
  }),
  endpoint({
    method: 'GET',
    path: '/custom-fields',
    tag: 'Settings',
    summary: 'Fields of your own',
    run: async () => ({ fields: await loadCustomFields() }),
  }),
  endpoint({
    method: 'PUT',
    path: '/custom-fields',
    tag: 'Settings',
    summary: 'Add a field of your own, or change it',
    body: newCustomFieldSchema,
    run: ({ body }) => saveCustomField(body),
  }),
  endpoint({
    method: 'POST',
    path: '/custom-fields/remove',
    tag: 'Settings',
    summary: 'Take a field of your own off the sheets; what items say in it is kept',
    body: customFieldKeySchema,
    run: ({ body }) => removeCustomField(body),
  }),
  endpoint({
    method: 'GET',
    path: '/settings',
    tag: 'Settings',
    summary: 'What holds for the whole shop',
    run: () => readSettings(),
  }),
  endpoint({
    method: 'PUT',
    path: '/settings',
    tag: 'Settings',
    summary: 'Change what holds for the whole shop',
    body: shopSettingsSchema,
    run: ({ actor, body }) => saveSettings(actor, body),
  }),
];
