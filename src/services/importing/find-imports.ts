import { desc } from 'drizzle-orm';
import { z } from 'zod';
import { tiedBy } from '../../core/table';
import { database } from '../../db/client';
import { fileImport } from '../../db/schema';
import { fileColumns } from '../records/items/file-columns';
import { type ImportRow, loadImport } from './load-import';

const countsSchema = z.object({
  same: z.number(),
  kept: z.number(),
  change: z.number(),
  conflict: z.number(),
  new: z.number(),
  refused: z.number(),
});

const briefSchema = z.object({
  id: z.number(),
  name: z.string(),
  bytes: z.number(),
  state: z.enum(['open', 'checking', 'checked', 'applying', 'applied']),
  counts: countsSchema,
  runId: z.number().nullable(),
  byName: z.string(),
  at: z.string(),
});
export const importOptionsSchema = z
  .object({
    units: z.enum(['set', 'add']).describe('What a number of units means: what there is, or so many more'),
    empty: z.enum(['keep', 'clear']).describe('What an empty cell means where it is not known what was written out'),
    createNew: z.boolean().describe('Rows that are of no item become new ones'),
    decided: z
      .record(z.string(), z.enum(['file', 'ours']))
      .describe('Of a column changed on both sides: whose value holds'),
  })
  .strict();

export const importViewSchema = briefSchema.extend({
  layout: z.object({
    format: z.enum(['csv', 'xlsx', 'json', 'ndjson', 'xml']),
    encoding: z.string().optional(),
    separator: z.string().optional(),
    hasHeader: z.boolean(),
    sheet: z.string().optional(),
    sheets: z.array(z.string()).optional(),
  }),
  columns: z.array(
    z.object({
      header: z.string(),
      samples: z.array(z.string()),
      column: z.string().nullable(),
      label: z.string().nullable(),
      certainty: z.number(),
      why: z.string(),
    }),
  ),
  options: importOptionsSchema,
  exportId: z.number().nullable(),
  taskId: z.number().nullable(),
  /** Why carrying it out does not go on by itself. */
  halted: z.string().nullable(),
  /** By which column the rows are tied to items; null when by none. */
  tiedBy: z.string().nullable(),
});
export type ImportView = z.infer<typeof importViewSchema>;
export const importsSchema = z.object({ imports: z.array(briefSchema) });

const shown = 50;

const briefOf = ({
  id,
  name,
  bytes,
  state,
  counts,
  runId,
  byName,
  createdAt,
}: Omit<ImportRow, 'halted'>): z.infer<typeof briefSchema> => ({
  id,
  name,
  bytes,
  state,
  counts,
  runId,
  byName,
  at: createdAt.toISOString(),
});

/** Files that were read in lately, the newest first. */
export async function findImports(): Promise<z.infer<typeof importsSchema>> {
  const rows = await database().select().from(fileImport).orderBy(desc(fileImport.id)).limit(shown);
  return { imports: rows.map(briefOf) };
}

export async function findImport(id: number): Promise<ImportView> {
  const row = await loadImport(database(), id);
  const { find } = await fileColumns(database());
  return {
    ...briefOf(row),
    layout: row.layout as ImportView['layout'], // written by `receiveFile`
    columns: row.headers.map((header, at) => {
      const column = row.ties[at] ?? null;
      return {
        header,
        samples: (row.samples[at] ?? []).filter(Boolean).slice(0, 3),
        column,
        label: column === null ? null : (find(column)?.label ?? column),
        certainty: row.recognised[at]?.certainty ?? 0,
        why: row.recognised[at]?.why ?? 'nothing',
      };
    }),
    options: row.options,
    exportId: row.exportId,
    taskId: row.taskId,
    halted: row.halted,
    tiedBy: tiedBy(row.ties),
  };
}
