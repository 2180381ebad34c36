import { and, count, eq, inArray, sql } from 'drizzle-orm';
import { z } from 'zod';
import { shareWays } from '../../core/batch';
import { intakeSettingsSchema } from '../../core/batch/settings';
import { homeAmount } from '../../core/measure';
import { database } from '../../db/client';
import { batchLine, batchStates, run } from '../../db/schema';
import { batchPieces, type Piece, sharesOf } from '../records/batches/batch-pieces';
import { codeOf, loadBatch } from '../records/batches/load-batch';
import { type AccountNet, accountNets, netsAt, priceThere } from '../records/listings/account-nets';

const totalsSchema = z.object({
  /** Lines, of them those that wait for a person, and pieces. */
  lines: z.number(),
  open: z.number(),
  pieces: z.number(),
  units: z.number(),
  /** Of all units, in minor units: the batch's total where there is one, else what the pieces cost. */
  cost: z.number(),
  /** Nothing is known of the cost of so many pieces. */
  withoutCost: z.number(),
  /** What would be left of the units that are meant for it, at their prices, on each account; in the shop's own currency. */
  nets: z.array(z.object({ accountId: z.number(), net: z.number(), pieces: z.number() })),
  /** The account where most is left of all. */
  best: z.object({ accountId: z.number(), net: z.number() }).nullable(),
  /** Each piece where most is left of it. */
  bestEach: z.number(),
  missing: z.array(z.object({ what: z.string(), count: z.number() })),
});

export const batchViewSchema = z.object({
  id: z.number(),
  version: z.number(),
  code: z.string(),
  name: z.string(),
  supplier: z.string(),
  boughtOn: z.string().nullable(),
  invoice: z.string(),
  totalCost: z.number().nullable(),
  shareBy: z.enum(shareWays),
  shares: z.record(z.string(), z.number()),
  skuPattern: z.string(),
  state: z.enum(batchStates),
  settings: intakeSettingsSchema,
  runId: z.number(),
  isTakenBack: z.boolean(),
  byName: z.string(),
  createdAt: z.string(),
  totals: totalsSchema,
});
export type BatchView = z.infer<typeof batchViewSchema>;

/** A batch with its totals as they are now. */
export async function findBatch(id: number): Promise<BatchView> {
  const db = database();
  const row = await loadBatch(db, id);
  const [pieces, [counted], [under], nets] = await Promise.all([
    batchPieces(db, row),
    db
      .select({ lines: count(), open: sql<number>`coalesce(sum(${batchLine.kind} = 'none'), 0)` })
      .from(batchLine)
      .where(and(eq(batchLine.batchId, id), inArray(batchLine.isUndone, [false]))),
    db.select({ undoneBy: run.undoneBy }).from(run).where(eq(run.id, row.runId)),
    accountNets(),
  ]);
  const { createdAt, ...batch } = row;
  return {
    ...batch,
    code: codeOf(id),
    isTakenBack: Boolean(under?.undoneBy),
    createdAt: createdAt.toISOString(),
    totals: totalsOf(pieces, nets, {
      lines: counted?.lines ?? 0,
      open: Number(counted?.open ?? 0),
      total: row.totalCost,
      shares: sharesOf(row, pieces),
    }),
  };
}

type Known = { lines: number; open: number; total: number | null; shares: number[] | null };

function totalsOf(
  pieces: readonly Piece[],
  shops: ReadonlyMap<number, AccountNet>,
  { lines, open, total, shares }: Known,
): z.infer<typeof totalsSchema> {
  const costOf = (piece: Piece, index: number): number | null =>
    shares ? (shares[index] ?? 0) : piece.item[3] === null ? null : piece.item[3] * piece.units;
  const nets = new Map<number, { net: number; pieces: number }>();
  let bestEach = 0;
  for (const [index, piece] of pieces.entries()) {
    // What a piece costs is what it bears of the total, also before that is written into the items.
    const cost = costOf(piece, index);
    const tuple: Piece['item'] = [...piece.item];
    tuple[3] = cost === null || piece.units === 0 ? null : Math.round(cost / piece.units);
    let best: number | null = null;
    for (const id of piece.meantFor) {
      const there = shops.get(id);
      if (!there) continue;
      const found = netsAt(there, tuple, priceThere(there, tuple, piece.item[1]));
      const home = found && homeAmount(found.net, there.account.compiled.rules.currency, there.account.rate);
      if (home === null || home === undefined) continue;
      const sum = nets.get(id) ?? { net: 0, pieces: 0 };
      nets.set(id, { net: sum.net + home * piece.units, pieces: sum.pieces + 1 });
      if (best === null || home > best) best = home;
    }
    bestEach += (best ?? 0) * piece.units;
  }
  const each = [...nets].map(([accountId, sum]) => ({ accountId, ...sum })).sort((a, b) => b.net - a.net);
  const [first] = each;
  const own = pieces.filter((one) => one.isOwn);
  const lacking: [string, number][] = [
    ['a title', own.filter((one) => one.title === '').length],
    ['a price', own.filter((one) => one.item[1] === null).length],
    ['a condition', own.filter((one) => one.condition === null).length],
    ['a category', own.filter((one) => one.item[5] === '').length],
    ['a weight', own.filter((one) => one.item[4] === null).length],
  ];
  return {
    lines,
    open,
    pieces: pieces.length,
    units: pieces.reduce((sum, one) => sum + one.units, 0),
    cost: total ?? pieces.reduce((sum, one, index) => sum + (costOf(one, index) ?? 0), 0),
    withoutCost: pieces.filter((one, index) => costOf(one, index) === null).length,
    nets: each,
    best: first ? { accountId: first.accountId, net: first.net } : null,
    bestEach,
    missing: lacking.flatMap(([what, count]) => (count ? [{ what, count }] : [])),
  };
}
