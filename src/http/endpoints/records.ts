import { z } from 'zod';
import { itemFilterSchema } from '../../core/filter';
import { countItems } from '../../services/records/items/count-items';
import { stageCounts, stageCountsSchema } from '../../services/records/items/count-stages';
import { fieldViewSchema, findFields, findFieldsSchema } from '../../services/records/items/find-fields';
import { findItems, findItemsSchema, foundPageSchema } from '../../services/records/items/find-items';
import { findReminders, reminderSchema } from '../../services/records/items/find-reminders';
import { knownWords, wordsSchema } from '../../services/records/items/known-words';
import { bringBack, bringBackSchema } from '../../services/records/removed/bring-back';
import { findRemoved, findRemovedSchema, removedSchema } from '../../services/records/removed/find-removed';
import { removeKept } from '../../services/records/removed/remove-kept';
import { findSearches, savedSearchSchema } from '../../services/searches/find-searches';
import { newSearchSchema, saveSearch } from '../../services/searches/save-search';
import { done, endpoint } from '../endpoint';

/** Finding and counting. */
export const recordsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/items',
    tag: 'Items',
    role: 'packer',
    summary: 'Find items, paged by key, with their listings',
    query: findItemsSchema,
    answer: foundPageSchema,
    run: ({ query }) => findItems(query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/count',
    tag: 'Items',
    role: 'packer',
    summary: 'How many items a filter finds',
    query: itemFilterSchema,
    answer: z.object({ count: z.number() }),
    run: async ({ query }) => ({ count: await countItems(query) }),
  }),
  endpoint({
    method: 'GET',
    path: '/searches',
    tag: 'Items',
    role: 'packer',
    summary: 'Searches of the inventory that were given a name',
    answer: z.object({ searches: z.array(savedSearchSchema) }),
    run: async () => ({ searches: await findSearches() }),
  }),
  endpoint({
    method: 'POST',
    path: '/searches',
    tag: 'Items',
    role: 'seller',
    summary: 'Keep a search under a name of its own',
    body: newSearchSchema,
    answer: z.object({ id: z.number() }),
    run: ({ actor, body }) => saveSearch(actor, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/searches/{id}',
    tag: 'Items',
    role: 'seller',
    summary: 'Forget a kept search',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'search', params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/fields',
    tag: 'Items',
    role: 'packer',
    summary: 'The catalogue of fields: what each is called, holds, and what is done with it',
    query: findFieldsSchema,
    answer: z.object({ fields: z.array(fieldViewSchema) }),
    run: ({ query }) => findFields(query),
  }),
  endpoint({
    method: 'GET',
    path: '/reminders',
    tag: 'Items',
    role: 'packer',
    summary: 'Items that somebody wanted to be reminded of by today',
    answer: z.object({ reminders: z.array(reminderSchema) }),
    run: async () => ({ reminders: await findReminders() }),
  }),
  endpoint({
    method: 'GET',
    path: '/words',
    tag: 'Items',
    role: 'packer',
    summary: 'Brands, categories, suppliers and places that stand in the inventory already',
    answer: wordsSchema,
    run: () => knownWords(),
  }),
  endpoint({
    method: 'GET',
    path: '/stages',
    tag: 'Overview',
    role: 'packer',
    summary: 'How many items stand at each stage',
    answer: stageCountsSchema,
    run: () => stageCounts(),
  }),
  endpoint({
    method: 'GET',
    path: '/removed',
    tag: 'Overview',
    role: 'seller',
    summary: 'Templates, badges, boxes and the like that were removed and can be had back',
    query: findRemovedSchema,
    answer: z.object({ removed: z.array(removedSchema) }),
    run: ({ query }) => findRemoved(query),
  }),
  endpoint({
    method: 'POST',
    path: '/removed/back',
    tag: 'Overview',
    role: 'seller',
    summary: 'Have one of them back as it was',
    body: bringBackSchema,
    answer: done,
    run: ({ body }) => bringBack(body),
  }),
];
