import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { exportNamed, tiesByName } from '../../core/table';
import { transaction } from '../../db/client';
import { columnMemory, fileImport, fileImportRow } from '../../db/schema';
import type { Layout } from '../../files';
import { fileColumns } from '../records/items/file-columns';
import { noCounts } from './check-step';
import { signatureHash } from './column-memory';
import { importOptionsSchema } from './find-imports';
import { importPath } from './import-path';
import { loadImport } from './load-import';
import { openImport } from './open-import';
import { readStart, recogniseColumns } from './read-start';

export const tieColumnsSchema = z
  .object({
    layout: z
      .object({
        encoding: z.enum(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252']).optional(),
        separator: z.enum([',', ';', '\t', '|']).optional(),
        hasHeader: z.boolean().optional(),
        sheet: z.string().max(100).optional(),
      })
      .strict()
      .optional(),
    ties: z.array(z.string().max(120).nullable()).max(1_000).optional(),
    options: importOptionsSchema.partial().optional(),
  })
  .strict();

/**
 * Says how a file is to be read: how it is written, what its columns are, what numbers of units and empty cells mean. What
 * was checked before is checked anew; what the columns are is remembered for the next file with the same ones.
 */
export async function tieColumns(id: number, input: z.infer<typeof tieColumnsSchema>): Promise<void> {
  await transaction(async (tx) => {
    await tx.select({ id: fileImport.id }).from(fileImport).where(eq(fileImport.id, id)).for('update');
    const row = await loadImport(tx, id);
    if (row.state === 'applying' || row.state === 'applied')
      throw new NettingError('too-late', 'This file has been applied', { fix: 'Read it in again' });
    const options = { ...row.options, ...input.options };
    // Whose value holds where both sides changed it changes nothing of what was compared.
    const isDecision = !input.layout && !input.ties && Object.keys(input.options ?? {}).join() === 'decided';
    if (isDecision) {
      await tx.update(fileImport).set({ options }).where(eq(fileImport.id, id));
      return;
    }
    const columns = await fileColumns(tx);
    const layout = { ...(row.layout as Layout), ...input.layout }; // written by `receiveFile`
    const anew = input.layout ? await readStart(await openImport(importPath(row.contents)), layout) : null;
    const headers = anew?.headers ?? row.headers;
    const found = anew ? await recogniseColumns(tx, columns, headers, anew.samples) : null;
    const ties = input.ties ?? found?.map((one) => one.column) ?? row.ties;
    if (ties.length !== headers.length)
      throw new NettingError('invalid', `The file has ${headers.length} columns`, { field: 'ties' });
    const said = ties.flatMap((one) => one ?? []);
    const unknown = said.find((one) => !columns.find(one));
    if (unknown) throw new NettingError('invalid', `There is no column ${unknown}`, { field: 'ties' });
    const twice = said.find((one, at) => said.indexOf(one) !== at);
    if (twice)
      throw new NettingError('invalid', `Two columns are both ${columns.find(twice)?.label ?? twice}`, {
        field: 'ties',
      });
    if (input.ties) {
      const memory = { ties: tiesByName(headers, ties), at: new Date() };
      await tx
        .insert(columnMemory)
        .values({ signature: signatureHash(headers), ...memory })
        .onDuplicateKeyUpdate({ set: memory });
    }
    await tx.delete(fileImportRow).where(eq(fileImportRow.importId, id));
    await tx
      .update(fileImport)
      .set({
        layout,
        headers,
        ties,
        ...(anew ? { samples: anew.samples, exportId: exportNamed(headers) } : {}),
        ...(found ? { recognised: found.map(({ certainty, why }) => ({ certainty, why })) } : {}),
        options,
        state: 'open',
        counts: noCounts,
        taskId: null,
      })
      .where(eq(fileImport.id, id));
  });
}
