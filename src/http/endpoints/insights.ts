import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { formats } from '../../files';
import { insightColumns, insightRows } from '../../services/insights/export-insight';
import { behindQuerySchema, behindSchema, findBehind } from '../../services/insights/find-behind';
import { findInsight, insightSchema } from '../../services/insights/find-insight';
import { insightFileQuerySchema, insightQuerySchema } from '../../services/insights/query';
import { endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';

const tag = 'Insights';

/** Looking back. */
export const insightsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/insights',
    tag,
    role: 'seller',
    summary: 'A view of what was sold, bought and done within a period, as tables',
    query: insightQuerySchema,
    answer: insightSchema,
    run: ({ query }) => findInsight(query),
  }),
  endpoint({
    method: 'GET',
    path: '/insights/items',
    tag,
    role: 'seller',
    summary: 'The items behind a figure, those with the most money in it first',
    query: behindQuerySchema,
    answer: behindSchema,
    run: ({ query }) => findBehind(query),
  }),
  streamed({
    path: '/insights/file',
    tag,
    role: 'seller',
    summary: 'One of the tables of a view as a file',
    query: insightFileQuerySchema,
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ query: { format, table: id, ...query } }) => {
      const { tables } = await findInsight(query);
      const table = tables.find((one) => one.id === id);
      if (!table) throw new NettingError('not-found', `There is no table ${id} in this view`);
      const { write, mime, ending } = formats[format];
      return fileResponse(write(insightColumns(table), insightRows(table), {}), { mime, name: `${id}.${ending}` });
    },
  }),
];
