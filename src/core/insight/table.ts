import { z } from 'zod';

/** How a figure is meant: minor units of the shop's currency, pieces, ten-thousandths, days, or times as many. */
export const figureKinds = ['text', 'money', 'count', 'share', 'days', 'times'] as const;

/**
 * A table of what is looked back at. Screens, charts and files are made of it, so that they cannot say different things.
 * `behind` is how the items behind a row are asked for; null where there are none.
 */
export const insightTableSchema = z.object({
  id: z.string(),
  title: z.string(),
  /** In plain words, how to read it. */
  about: z.string(),
  columns: z.array(z.object({ id: z.string(), head: z.string(), kind: z.enum(figureKinds) })),
  rows: z.array(
    z.object({
      key: z.string(),
      cells: z.array(z.union([z.string(), z.number(), z.null()])),
      behind: z.record(z.string(), z.string()).nullable(),
    }),
  ),
});
export type InsightTable = z.infer<typeof insightTableSchema>;
export type InsightColumn = InsightTable['columns'][number];
