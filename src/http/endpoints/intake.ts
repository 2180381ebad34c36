import { z } from 'zod';
import type { Role } from '../../core/access';
import { batchViewSchema, findBatch } from '../../services/intake/find-batch';
import { batchRowSchema, findBatches, findBatchesSchema } from '../../services/intake/find-batches';
import { findLines, findLinesSchema } from '../../services/intake/find-lines';
import { lineOffers, lineOffersSchema } from '../../services/intake/line-offers';
import { type LineView, lineViewSchema } from '../../services/intake/line-view';
import { changeBatch, changeBatchSchema, createBatch, newBatchSchema } from '../../services/intake/save-batch';
import { presetViewSchema, savePreset, savePresetSchema } from '../../services/intake/save-preset';
import { shareBatchCost } from '../../services/intake/share-batch-cost';
import { takeActs, takeActsSchema, takenSchema } from '../../services/intake/take-acts';
import { findPresets } from '../../services/records/batches/find-presets';
import { removeKept } from '../../services/records/removed/remove-kept';
import { done, endpoint } from '../endpoint';
import { seesCosts } from '../require-role';

/** That something is not worth taking is told to everybody, what would be left of it is not. */
const asTold = (line: LineView, role: Role): LineView =>
  seesCosts(role) || line.leave === null
    ? line
    : { ...line, leave: 'Leave it: it is not worth what the batch asks for' };

const made = z.object({ id: z.number() });

/** Batches, and what is scanned into them. */
export const intakeEndpoints = [
  endpoint({
    method: 'GET',
    path: '/batches',
    tag: 'Batches',
    role: 'packer',
    summary: 'Batches, the newest first',
    query: findBatchesSchema,
    answer: z.object({ batches: z.array(batchRowSchema), next: z.number().nullable() }),
    run: ({ query }) => findBatches(query),
  }),
  endpoint({
    method: 'POST',
    path: '/batches',
    tag: 'Batches',
    role: 'packer',
    summary: 'Begin a batch',
    body: newBatchSchema,
    keepsCosts: true,
    answer: made,
    run: ({ actor, who, body }) => createBatch(actor, seesCosts(who.role) ? body : { ...body, totalCost: null }),
  }),
  endpoint({
    method: 'GET',
    path: '/batches/{id}',
    tag: 'Batches',
    role: 'packer',
    summary: 'A batch with its totals: units, cost, what would be left on each account, what is missing',
    answer: batchViewSchema,
    run: ({ params }) => findBatch(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/batches/{id}',
    tag: 'Batches',
    role: 'packer',
    summary: 'Change its name, cost, settings or state',
    body: changeBatchSchema,
    keepsCosts: true,
    answer: z.object({ version: z.number() }),
    run: ({ who, params, body }) => changeBatch(params.id, body, seesCosts(who.role)),
  }),
  endpoint({
    method: 'GET',
    path: '/batches/{id}/lines',
    tag: 'Batches',
    role: 'packer',
    summary: 'Its lines, the newest first',
    query: findLinesSchema,
    answer: z.object({ lines: z.array(lineViewSchema), next: z.number().nullable() }),
    run: async ({ who, params, query }) => {
      const { lines, next } = await findLines(params.id, query);
      return { lines: lines.map((line) => asTold(line, who.role)), next };
    },
  }),
  endpoint({
    method: 'POST',
    path: '/batches/{id}/acts',
    tag: 'Batches',
    role: 'packer',
    summary: 'Scan, take back, answer: in this order, each once however often it is sent',
    body: takeActsSchema,
    keepsCosts: true,
    answer: takenSchema,
    run: async ({ actor, who, params, body }) => {
      const { done: each } = await takeActs(actor, params.id, body, seesCosts(who.role));
      return { done: each.map((one) => ({ ...one, lines: one.lines.map((line) => asTold(line, who.role)) })) };
    },
  }),
  endpoint({
    method: 'GET',
    path: '/batch-lines/{id}/offers',
    tag: 'Batches',
    role: 'seller',
    summary: 'What others offer of a line’s piece right now',
    answer: lineOffersSchema,
    run: ({ params }) => lineOffers(params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/batches/{id}/share',
    tag: 'Batches',
    role: 'seller',
    summary: 'Write what each piece bears of the total into the items’ costs',
    body: z.object({}).strict(),
    answer: z.object({ items: z.number() }),
    run: ({ actor, params }) => shareBatchCost(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/intake-presets',
    tag: 'Batches',
    role: 'packer',
    summary: 'Settings of an intake that were given a name',
    answer: z.object({ presets: z.array(presetViewSchema) }),
    run: async () => ({ presets: await findPresets() }),
  }),
  endpoint({
    method: 'PUT',
    path: '/intake-presets',
    tag: 'Batches',
    role: 'seller',
    summary: 'Keep settings under a name',
    body: savePresetSchema,
    answer: made,
    run: ({ actor, body }) => savePreset(actor, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/intake-presets/{id}',
    tag: 'Batches',
    role: 'seller',
    summary: 'Forget kept settings',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'preset', params.id),
  }),
];
