import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { withCostsOf } from '../../core/batch/settings';
import { NettingError } from '../../core/errors';
import { database, transaction } from '../../db/client';
import { batchLine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { printWaiting } from '../labels/print-waiting';
import { settled } from '../records/accounts/settled';
import { loadBatch } from '../records/batches/load-batch';
import { answerLine } from './answer-line';
import { type IntakeAct, intakeActSchema, type ScanAct } from './intake-act';
import { type LineView, lineViewSchema, viewsOf } from './line-view';
import { lookUpNow, lookUpSoon } from './look-up-lines';
import { type TakenScan, takeScans } from './take-scans';
import { undoLine } from './undo-line';

export const takeActsSchema = z
  .object({
    acts: z.array(intakeActSchema).min(1).max(50),
    /** So many of the first were kept while there was no connection: their pieces are in nobody's hand any more. */
    kept: z.number().int().min(0).default(0),
  })
  .strict();

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
 * Carries out what was done at the scan field, in its order; what was carried out before is only told again. One that is
 * refused holds up none behind it.
 * @param seesCosts false for who is not told what was paid: pieces bear what the batch says
 */
export async function takeActs(
  actor: Actor,
  batchId: number,
  { acts: given, kept }: z.output<typeof takeActsSchema>,
  seesCosts = true,
): Promise<Taken> {
  const { settings } = await loadBatch(database(), batchId);
  const acts = seesCosts
    ? given
    : given.map((act) => (act.act === 'scan' ? { ...act, settings: withCostsOf(act.settings, settings) } : act));
  const taken: TakenScan[] = [];
  for (const some of together(acts))
    taken.push(
      ...(some.is === 'scans'
        ? await takeScans(actor, batchId, some.acts)
        : [await orRefused(() => settled(() => carryOut(actor, batchId, some.act)))]),
    );
  const views = new Map((await viewsOf(idsOf(taken))).map((view): [number, LineView] => [view.id, view]));
  const isOpen = (id: number) => views.get(id)?.isDone === false;
  lookUpSoon(idsOf(taken.slice(0, kept)).filter(isOpen));
  lookUpNow(idsOf(taken.slice(kept)).filter(isOpen));
  if (acts.some((act) => act.act === 'scan' && act.settings.label !== null)) void printWaiting().catch(() => undefined);
  return {
    done: taken.map((one) =>
      one instanceof NettingError
        ? { lines: [], problem: { message: one.message, fix: one.facts.fix ?? null } }
        : { lines: one.flatMap((id) => views.get(id) ?? []), problem: null },
    ),
  };
}

const idsOf = (taken: readonly TakenScan[]): number[] => [
  ...new Set(taken.flatMap((one) => (one instanceof NettingError ? [] : one))),
];

type Together = { is: 'scans'; acts: ScanAct[] } | { is: 'other'; act: Exclude<IntakeAct, ScanAct> };

/** Scans that follow each other, and what is done in between. */
function together(acts: readonly IntakeAct[]): Together[] {
  const parts: Together[] = [];
  for (const act of acts) {
    const last = parts.at(-1);
    if (act.act !== 'scan') parts.push({ is: 'other', act });
    else if (last?.is === 'scans') last.acts.push(act);
    else parts.push({ is: 'scans', acts: [act] });
  }
  return parts;
}

async function orRefused(work: () => Promise<number[]>): Promise<TakenScan> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof NettingError) return error;
    throw error;
  }
}

async function carryOut(actor: Actor, batchId: number, act: Exclude<IntakeAct, ScanAct>): Promise<number[]> {
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
