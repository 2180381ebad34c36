import { count, eq } from 'drizzle-orm';
import { z } from 'zod';
import { readScans } from '../../core/barcode';
import { NettingError } from '../../core/errors';
import { database, isDuplicate, type Tx, transaction } from '../../db/client';
import { type BatchLineRow, type BatchRow, batchLine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { printWaiting } from '../labels/print-waiting';
import { loadBatch } from '../records/batches/load-batch';
import { madeKey } from '../records/items/made-key';
import { answerLine } from './answer-line';
import { type IntakeAct, intakeActSchema, type ScanAct } from './intake-act';
import { type LineView, lineViewSchema, viewsOf } from './line-view';
import { lookUpNow, lookUpSoon } from './look-up-lines';
import { recordLine } from './record-line';
import { undoLine } from './undo-line';

const mostLines = 5_000;
const mostInHand = 5;

export const takeActsSchema = z.object({ acts: z.array(intakeActSchema).min(1).max(50) }).strict();

export const takenSchema = z.object({
  /** For each act, in their order, the lines as they are now, or why it was not carried out. */
  done: z.array(
    z.object({
      lines: z.array(lineViewSchema),
      problem: z.object({ message: z.string(), fix: z.string().nullable() }).nullable(),
    }),
  ),
});
type Taken = z.infer<typeof takenSchema>;

/**
 * Carries out what was done at the scan field, in its order, each thing in a transaction of its own; what was carried out
 * before is only told again. One that is refused holds up none behind it.
 */
export async function takeActs(
  actor: Actor,
  batchId: number,
  { acts }: z.infer<typeof takeActsSchema>,
): Promise<Taken> {
  await loadBatch(database(), batchId);
  const ids: (number[] | { message: string; fix: string | null })[] = [];
  for (const act of acts) {
    try {
      ids.push(await carryOut(actor, batchId, act));
    } catch (error) {
      if (!(error instanceof NettingError)) throw error;
      ids.push({ message: error.message, fix: error.facts.fix ?? null });
    }
  }
  const all = [...new Set(ids.flatMap((one) => (Array.isArray(one) ? one : [])))];
  const views = new Map((await viewsOf(all)).map((view): [number, LineView] => [view.id, view]));
  const open = [...views.values()].filter((view) => !view.isDone).map((view) => view.id);
  // Of many at once, which were kept while there was no connection, only the last are still in somebody's hand.
  lookUpSoon(open.slice(0, -mostInHand));
  lookUpNow(open.slice(-mostInHand));
  if (acts.some((act) => act.act === 'scan' && act.settings.label !== null)) void printWaiting().catch(() => undefined);
  return {
    done: ids.map((one) =>
      Array.isArray(one)
        ? { lines: one.flatMap((id) => views.get(id) ?? []), problem: null }
        : { lines: [], problem: one },
    ),
  };
}

const lineOf = async (key: string, db: Pick<Tx, 'select'> = database()): Promise<BatchLineRow | undefined> =>
  (await db.select().from(batchLine).where(eq(batchLine.key, key)))[0];

async function carryOut(actor: Actor, batchId: number, act: IntakeAct): Promise<number[]> {
  if (act.act === 'scan') return takeScan(actor, batchId, act);
  return transaction(async (tx) => {
    const batch = await loadBatch(tx, batchId);
    const [line] = await tx.select().from(batchLine).where(eq(batchLine.key, act.of)).for('update');
    if (!line || line.batchId !== batchId)
      throw new NettingError('not-found', 'This scan is not in the batch', { fix: 'Scan the piece again' });
    if (act.act === 'undo') await undoLine(tx, actor, batch, line);
    else await answerLine(tx, actor, batch, line, act);
    return [line.id];
  });
}

/** One line for each code that arrived together. */
async function takeScan(actor: Actor, batchId: number, act: ScanAct): Promise<number[]> {
  const scans = readScans(act.text);
  const [first = { is: 'broken' as const, text: act.text, why: 'Nothing was read' }] = scans;
  const all = scans.length ? scans : [first];
  const ids: number[] = [];
  for (const [index, scan] of all.entries()) {
    const key = index === 0 ? act.key : madeKey(`${act.key} ${index}`);
    const known = await lineOf(key);
    if (known) {
      ids.push(known.id);
      continue;
    }
    const text = all.length === 1 ? act.text : scan.is === 'code' ? scan.code : act.text;
    try {
      ids.push(
        await transaction(async (tx) => {
          const batch = await loadBatch(tx, batchId);
          await refuseClosed(tx, batch);
          return recordLine(tx, { actor, batch, key, text, scan, settings: act.settings });
        }),
      );
    } catch (error) {
      // Sent twice at the same moment: the other one has made the line.
      const made = isDuplicate(error) ? await lineOf(key) : undefined;
      if (!made) throw error;
      ids.push(made.id);
    }
  }
  return ids;
}

async function refuseClosed(tx: Tx, batch: BatchRow): Promise<void> {
  if (batch.state === 'closed')
    throw new NettingError('conflict', `${batch.name} is closed`, { fix: 'Open it again, or scan into another batch' });
  const [found] = await tx.select({ lines: count() }).from(batchLine).where(eq(batchLine.batchId, batch.id));
  if ((found?.lines ?? 0) >= mostLines)
    throw new NettingError('invalid', `A batch holds ${mostLines.toLocaleString('en')} lines`, {
      fix: 'Begin another batch for what is left',
    });
}
