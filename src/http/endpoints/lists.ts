import { z } from 'zod';
import { artworkEarningsQuery } from '../../services/artwork/find-earnings';
import { findFoundSchema } from '../../services/gathering/find-found';
import { findBatchesSchema } from '../../services/intake/find-batches';
import { findLinesSchema } from '../../services/intake/find-lines';
import { findLinksSchema } from '../../services/listings/links/find-links';
import { comparablesQuerySchema } from '../../services/listings/prices/comparables';
import { findRenewalsSchema } from '../../services/listings/renewal/find-renewals';
import {
  batchList,
  consignmentList,
  foundList,
  kitList,
  lineList,
  lotList,
  thereList,
} from '../../services/lists/intake';
import {
  artworkList,
  comparableList,
  earningList,
  flawedList,
  historyList,
  movementList,
  runChangeList,
} from '../../services/lists/items';
import { driftList, goneList, linkList, offerList, renewalList } from '../../services/lists/marketplaces';
import { peopleEventList } from '../../services/lists/people';
import { causeList, jobList, runList, unsentList } from '../../services/lists/sending';
import { findJobsSchema } from '../../services/outbox/find-jobs';
import { findUnsentSchema } from '../../services/outbox/find-unsent';
import { findFlawedSchema } from '../../services/photos/find-flaws';
import { salesColumns, salesRows } from '../../services/stock/export-sales';
import { findSalesSchema } from '../../services/stock/find-sales';
import { findDriftSchema } from '../../services/sync/find-drift';
import { findOffersSchema } from '../../services/sync/find-offers';
import { listEndpoint } from '../list-endpoint';

const tag = 'Lists as files';
const nothing = z.object({}).strict();

/** Every list as a file, with the filters of its page. */
export const listsEndpoints = [
  listEndpoint({
    path: '/jobs/file',
    tag,
    summary: 'Jobs of the outbox',
    query: findJobsSchema.omit({ before: true, limit: true }),
    list: jobList,
  }),
  listEndpoint({ path: '/runs/file', tag, summary: 'What was done to many', query: nothing, list: runList }),
  listEndpoint({
    path: '/runs/{id}/changes/file',
    tag,
    summary: 'What a change did, value by value',
    query: nothing,
    list: runChangeList,
  }),
  listEndpoint({ path: '/causes/file', tag, summary: 'What needs a person', query: nothing, list: causeList }),
  listEndpoint({
    path: '/unsent/file',
    tag,
    summary: 'What was changed and not sent',
    query: findUnsentSchema.omit({ after: true, limit: true }),
    list: unsentList,
  }),
  listEndpoint({
    path: '/drift/file',
    tag,
    summary: 'What marketplaces show otherwise than it was sent',
    query: findDriftSchema.omit({ after: true, limit: true }),
    list: driftList,
  }),
  listEndpoint({
    path: '/gone/file',
    tag,
    summary: 'What is wanted and not there any more',
    query: nothing,
    list: goneList,
  }),
  listEndpoint({
    path: '/offers/file',
    tag,
    summary: 'What buyers would pay',
    query: findOffersSchema.omit({ limit: true }),
    list: offerList,
  }),
  listEndpoint({
    path: '/links/file',
    tag,
    summary: 'Own stock numbers and the marketplaces’ numbers',
    query: findLinksSchema.omit({ after: true, limit: true }),
    list: linkList,
  }),
  listEndpoint({
    path: '/renewals/file',
    tag,
    summary: 'Live listings by age',
    query: findRenewalsSchema.omit({ from: true, limit: true }),
    list: renewalList,
  }),
  listEndpoint({
    path: '/batches/file',
    tag,
    summary: 'Batches',
    query: findBatchesSchema.omit({ before: true, limit: true }),
    list: batchList,
  }),
  listEndpoint({
    path: '/batches/{id}/lines/file',
    tag,
    summary: 'The scans of a batch with what came of them',
    query: findLinesSchema.pick({ open: true }),
    list: lineList,
  }),
  listEndpoint({
    path: '/consignments/file',
    tag,
    summary: 'Consignments',
    query: nothing,
    list: consignmentList,
  }),
  listEndpoint({
    path: '/consignments/stock/file',
    tag,
    summary: 'What lies in warehouses',
    query: nothing,
    list: thereList,
  }),
  listEndpoint({ path: '/kits/file', tag, summary: 'Sets that are taken apart', query: nothing, list: kitList }),
  listEndpoint({ path: '/kits/{id}/lots/file', tag, summary: 'The lots of a set', query: nothing, list: lotList }),
  listEndpoint({
    path: '/found/file',
    tag,
    summary: 'What was found on an account',
    query: findFoundSchema.omit({ after: true, limit: true }),
    list: foundList,
  }),
  listEndpoint({
    path: '/photos/flawed/file',
    tag,
    summary: 'Items with a flaw in their photos',
    query: findFlawedSchema.omit({ after: true, limit: true }),
    list: flawedList,
  }),
  listEndpoint({
    path: '/artworks/earnings/file',
    tag,
    summary: 'What artwork earned',
    query: artworkEarningsQuery,
    list: earningList,
  }),
  listEndpoint({ path: '/artworks/file', tag, summary: 'Artwork', query: nothing, list: artworkList }),
  listEndpoint({
    path: '/items/{id}/history/file',
    tag,
    summary: 'Who changed what of an item, and what each marketplace answered',
    query: nothing,
    list: historyList,
  }),
  listEndpoint({
    path: '/items/{id}/stock/file',
    tag,
    summary: 'The stock ledger of an item',
    query: nothing,
    list: movementList,
  }),
  listEndpoint({
    path: '/items/{id}/comparables/file',
    tag,
    summary: 'The sales from which a thing’s worth is computed',
    query: comparablesQuerySchema,
    list: comparableList,
  }),
  listEndpoint({
    path: '/sales/file',
    tag,
    summary: 'Sales',
    query: findSalesSchema.omit({ before: true, limit: true }),
    list: { name: 'sales', columns: salesColumns, rows: salesRows },
  }),
  listEndpoint({
    path: '/people/file',
    tag,
    role: 'owner',
    summary: 'What was done about people, and who signed in',
    query: nothing,
    list: peopleEventList,
  }),
];
