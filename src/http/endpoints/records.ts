import { z } from 'zod';
import { itemFilterSchema } from '../../core/filter';
import { countItems } from '../../services/records/count-items';
import { stageCounts, stageCountsSchema } from '../../services/records/count-stages';
import { fieldViewSchema, findFields, findFieldsSchema } from '../../services/records/find-fields';
import { findItems, findItemsSchema, foundPageSchema } from '../../services/records/find-items';
import { knownWords, wordsSchema } from '../../services/records/known-words';
import { endpoint } from '../endpoint';

/** Finding and counting. */
export const recordsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/items',
    tag: 'Items',
    summary: 'Find items, paged by key, with their listings',
    query: findItemsSchema,
    answer: foundPageSchema,
    run: ({ query }) => findItems(query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/count',
    tag: 'Items',
    summary: 'How many items a filter finds',
    query: itemFilterSchema,
    answer: z.object({ count: z.number() }),
    run: async ({ query }) => ({ count: await countItems(query) }),
  }),
  endpoint({
    method: 'GET',
    path: '/fields',
    tag: 'Items',
    summary: 'The catalogue of fields: what each is called, holds, and what is done with it',
    query: findFieldsSchema,
    answer: z.object({ fields: z.array(fieldViewSchema) }),
    run: ({ query }) => findFields(query),
  }),
  endpoint({
    method: 'GET',
    path: '/words',
    tag: 'Items',
    summary: 'Brands, categories, suppliers and places that stand in the inventory already',
    answer: wordsSchema,
    run: () => knownWords(),
  }),
  endpoint({
    method: 'GET',
    path: '/stages',
    tag: 'Overview',
    summary: 'How many items stand at each stage',
    answer: stageCountsSchema,
    run: () => stageCounts(),
  }),
];
