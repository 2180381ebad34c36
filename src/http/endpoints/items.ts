import { z } from 'zod';
import { customFieldSchema } from '../../core/item/custom-fields';
import { titleVersionSchema } from '../../core/listing/fit/title-versions';
import { proposalSchema } from '../../core/wording/maker';
import { maxPhotoBytes } from '../../photos/intake';
import { addPhoto } from '../../services/items/add-photo';
import { blankSheet, blankSheetSchema } from '../../services/items/blank-sheet';
import { returnChange } from '../../services/items/bring-back';
import { createItem, createItemSchema } from '../../services/items/create-item';
import { findOpenItems, openItemSchema, openItemsSchema } from '../../services/items/find-open-items';
import { invitePhone, phoneLinkSchema } from '../../services/items/invite-phone';
import { historyQuerySchema, itemHistory, itemHistorySchema } from '../../services/items/item-history';
import { itemSheet, itemSheetSchema } from '../../services/items/item-sheet';
import { flawSchema, markFlaw } from '../../services/items/mark-flaw';
import { numberItem } from '../../services/items/number-item';
import { orderPhotos, orderPhotosSchema } from '../../services/items/order-photos';
import { itemPreviewSchema, previewItem } from '../../services/items/preview-item';
import { customFieldKeySchema, removeCustomField } from '../../services/items/remove-custom-field';
import { newCustomFieldSchema, saveCustomField } from '../../services/items/save-custom-field';
import { saveRowPlan, saveRowPlanSchema } from '../../services/items/save-row-plan';
import { saveSettings } from '../../services/items/save-settings';
import { splitVariations, splitVariationsSchema } from '../../services/items/split-variations';
import { titleProposals, titleProposalsSchema } from '../../services/items/title-proposals';
import { wordingProposals, wordingSchema } from '../../services/items/wording-proposals';
import { readSettings, shopSettingsSchema, someSettingsSchema } from '../../services/records/accounts/read-settings';
import { loadCustomFields } from '../../services/records/items/load-custom-fields';
import { done, endpoint } from '../endpoint';
import { readLimited } from '../read-limited';

/** Recording items: the sheet, photos, history, and what helps while one is written. */
export const itemsEndpoints = [
  endpoint({
    method: 'POST',
    path: '/items',
    tag: 'Items',
    role: 'packer',
    summary: 'Record an item, or a copy of one',
    body: createItemSchema,
    answer: z.object({
      id: z.number(),
      sku: z.string(),
      known: z.boolean().optional().describe('It had been made by this key before'),
    }),
    run: ({ actor, body }) => createItem(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/blank',
    tag: 'Items',
    role: 'packer',
    summary: 'A sheet of which nothing is stored, and what each account will ask for',
    answer: blankSheetSchema,
    run: () => blankSheet(),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}',
    tag: 'Items',
    role: 'packer',
    summary: 'An item and what every account will get of it',
    answer: itemSheetSchema,
    run: ({ params }) => itemSheet(params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/preview',
    tag: 'Items',
    role: 'seller',
    summary: 'What each account would get of an item: every value with its origin, and what a buyer would see',
    answer: itemPreviewSchema,
    run: ({ params }) => previewItem(params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/history',
    tag: 'Items',
    role: 'packer',
    summary: 'Who changed what, and what each marketplace answered, a page at a time',
    query: historyQuerySchema,
    answer: itemHistorySchema,
    run: ({ params, query }) => itemHistory(params.id, query),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/history/{change}/return',
    tag: 'Items',
    role: 'seller',
    summary: 'Bring one field back to what it was before a change',
    answer: z.object({ field: z.string() }),
    run: ({ actor, params }) => returnChange(actor, params.id, params.change),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/number',
    tag: 'Items',
    role: 'packer',
    summary: 'Give the item a new stock number by the pattern',
    answer: z.object({ sku: z.string(), version: z.number() }),
    run: ({ actor, params }) => numberItem(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/split',
    tag: 'Items',
    role: 'seller',
    summary: 'Make items of their own of some combinations; their units move',
    body: splitVariationsSchema,
    answer: z.object({ items: z.array(z.object({ id: z.number(), sku: z.string() })) }),
    run: ({ actor, params, body }) => splitVariations(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/photos',
    tag: 'Items',
    role: 'packer',
    summary: 'Add a photo: the picture is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: z.object({ hash: z.string(), photos: z.array(z.string()) }),
    run: async ({ actor, params, request }) =>
      addPhoto(actor, params.id, {
        bytes: await readLimited(request, maxPhotoBytes),
        name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
      }),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/photos',
    tag: 'Items',
    role: 'packer',
    summary: 'Order, remove or repeat photos',
    body: orderPhotosSchema,
    answer: z.object({ photos: z.array(z.string()) }),
    run: ({ actor, params, body }) => orderPhotos(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/photos/flaw',
    tag: 'Items',
    role: 'packer',
    summary: 'Say what a photo of a flaw shows',
    body: flawSchema,
    answer: done,
    run: ({ actor, params, body }) => markFlaw(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/phone',
    tag: 'Items',
    role: 'packer',
    isShownOnce: true,
    summary: 'Let a phone on the same network add photos for a quarter of an hour',
    answer: phoneLinkSchema,
    run: ({ actor, params }) => invitePhone(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/open-items',
    tag: 'Items',
    role: 'packer',
    summary: 'Items that are worked on in one sitting, with what is unfinished',
    query: openItemsSchema,
    answer: z.object({ items: z.array(openItemSchema) }),
    run: ({ query }) => findOpenItems(query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/wording',
    tag: 'Items',
    role: 'packer',
    summary: 'Proposals for title, tags, highlights and description, with the reason for every part',
    query: wordingSchema,
    answer: z.object({ proposals: z.array(proposalSchema) }),
    run: ({ params, query }) => wordingProposals(params.id, query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/titles',
    tag: 'Items',
    role: 'packer',
    summary: 'Up to three ways to say the title within a limit, each with what it loses',
    query: titleProposalsSchema,
    answer: z.object({ max: z.number(), versions: z.array(titleVersionSchema) }),
    run: ({ params, query }) => titleProposals(params.id, query),
  }),
  endpoint({
    method: 'GET',
    path: '/custom-fields',
    tag: 'Settings',
    role: 'packer',
    summary: 'Fields of your own',
    answer: z.object({ fields: z.array(customFieldSchema) }),
    run: async () => ({ fields: await loadCustomFields() }),
  }),
  endpoint({
    method: 'PUT',
    path: '/custom-fields',
    tag: 'Settings',
    role: 'seller',
    summary: 'Add a field of your own, or change it',
    body: newCustomFieldSchema,
    answer: z.object({ key: z.string() }),
    run: ({ body }) => saveCustomField(body),
  }),
  endpoint({
    method: 'POST',
    path: '/custom-fields/remove',
    tag: 'Settings',
    role: 'seller',
    summary: 'Take a field of your own off the sheets; what items say in it is kept',
    body: customFieldKeySchema,
    answer: done,
    run: ({ body }) => removeCustomField(body),
  }),
  endpoint({
    method: 'GET',
    path: '/settings',
    tag: 'Settings',
    role: 'packer',
    summary: 'What holds for the whole shop',
    answer: shopSettingsSchema,
    run: () => readSettings(),
  }),
  endpoint({
    method: 'PUT',
    path: '/settings',
    tag: 'Settings',
    role: 'seller',
    summary: 'Change what holds for the whole shop',
    body: someSettingsSchema,
    answer: shopSettingsSchema,
    run: ({ actor, body }) => saveSettings(actor, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/settings/rows',
    tag: 'Settings',
    role: 'seller',
    summary: 'Which rows the sheet shows for a category, and in which order',
    body: saveRowPlanSchema,
    answer: done,
    run: ({ actor, body }) => saveRowPlan(actor, body),
  }),
];
