import { z } from 'zod';
import { batchViewSchema, findBatch } from '../../services/intake/find-batch';
import { batchRowSchema, findBatches, findBatchesSchema } from '../../services/intake/find-batches';
import { findLines, findLinesSchema } from '../../services/intake/find-lines';
import { lineOffers, lineOffersSchema } from '../../services/intake/line-offers';
import { lineViewSchema } from '../../services/intake/line-view';
import { changeBatch, changeBatchSchema, createBatch, newBatchSchema } from '../../services/intake/save-batch';
import { presetViewSchema, removePreset, savePreset, savePresetSchema } from '../../services/intake/save-preset';
import { shareBatchCost } from '../../services/intake/share-batch-cost';
import { takeActs, takeActsSchema, takenSchema } from '../../services/intake/take-acts';
import { findPresets } from '../../services/records/batches/find-presets';
import { done, endpoint } from '../endpoint';

const made = z.object({ id: z.number() });

/** Batches, and what is scanned into them. */
export const intakeEndpoints = [
  endpoint({
    method: 'GET',
    path: '/batches',
    tag: 'Batches',
    summary: 'Batches, the newest first',
    query: findBatchesSchema,
    answer: z.object({ batches: z.array(batchRowSchema), next: z.number().nullable() }),
    run: ({ query }) => findBatches(query),
  }),
  endpoint({
    method: 'POST',
    path: '/batches',
    tag: 'Batches',
    summary: 'Begin a batch',
    body: newBatchSchema,
    answer: made,
    run: ({ actor, body }) => createBatch(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/batches/{id}',
    tag: 'Batches',
    summary: 'A batch with its totals: units, cost, what would be left on each account, what is missing',
    answer: batchViewSchema,
    run: ({ params }) => findBatch(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/batches/{id}',
    tag: 'Batches',
    summary: 'Change its name, cost, settings or state',
    body: changeBatchSchema,
    answer: z.object({ version: z.number() }),
    run: ({ params, body }) => changeBatch(params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/batches/{id}/lines',
    tag: 'Batches',
    summary: 'Its lines, the newest first',
    query: findLinesSchema,
    answer: z.object({ lines: z.array(lineViewSchema), next: z.number().nullable() }),
    run: ({ params, query }) => findLines(params.id, query),
  }),
  endpoint({
    method: 'POST',
    path: '/batches/{id}/acts',
    tag: 'Batches',
    summary: 'Scan, take back, answer: in this order, each once however often it is sent',
    body: takeActsSchema,
    answer: takenSchema,
    run: ({ actor, params, body }) => takeActs(actor, params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/batch-lines/{id}/offers',
    tag: 'Batches',
    summary: 'What others offer of a line’s piece right now',
    answer: lineOffersSchema,
    run: ({ params }) => lineOffers(params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/batches/{id}/share',
    tag: 'Batches',
    summary: 'Write what each piece bears of the total into the items’ costs',
    body: z.object({}).strict(),
    answer: z.object({ items: z.number() }),
    run: ({ actor, params }) => shareBatchCost(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/intake-presets',
    tag: 'Batches',
    summary: 'Settings of an intake that were given a name',
    answer: z.object({ presets: z.array(presetViewSchema) }),
    run: async () => ({ presets: await findPresets() }),
  }),
  endpoint({
    method: 'PUT',
    path: '/intake-presets',
    tag: 'Batches',
    summary: 'Keep settings under a name',
    body: savePresetSchema,
    answer: made,
    run: ({ actor, body }) => savePreset(actor, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/intake-presets/{id}',
    tag: 'Batches',
    summary: 'Forget kept settings',
    answer: done,
    run: ({ params }) => removePreset(params.id),
  }),
];
