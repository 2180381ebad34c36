import { count, eq, inArray } from 'drizzle-orm';
import { readScans, type Scan } from '../../core/barcode';
import { NettingError } from '../../core/errors';
import { type Tx, transaction } from '../../db/client';
import { type BatchRow, batchLine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { numbering } from '../changes/commit/free-sku';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { settled, stillAsAsked } from '../records/accounts/settled';
import { loadBatch } from '../records/batches/load-batch';
import { madeKey } from '../records/items/made-key';
import type { ScanAct } from './intake-act';
import { knownBefore } from './known-before';
import { countPieces, recordLine, type ShopNow } from './record-line';

const mostLines = 5_000;
/** So many scans that follow each other share a transaction: no lock in it is held for half a second. */
const mostTogether = 8;

/** The lines that a scan became, or why it was not taken. */
export type TakenScan = number[] | NettingError;

/**
 * Records scans in their order, several in one transaction; where one of those is refused, each in one of its own. What
 * was recorded before is only told again.
 */
export async function takeScans(actor: Actor, batchId: number, acts: readonly ScanAct[]): Promise<TakenScan[]> {
  const taken: TakenScan[] = [];
  for (let from = 0; from < acts.length; from += mostTogether) {
    const some = acts.slice(from, from + mostTogether);
    taken.push(...(await takeTogether(actor, batchId, some)));
  }
  return taken;
}

async function takeTogether(actor: Actor, batchId: number, acts: readonly ScanAct[]): Promise<TakenScan[]> {
  try {
    return await settled(async () => {
      const accounts = await accountsAtHand();
      return transaction((tx) => record(tx, actor, batchId, acts, accounts));
    });
  } catch (error) {
    if (acts.length === 1) {
      if (!(error instanceof NettingError)) throw error;
      return [error];
    }
    const taken: TakenScan[] = [];
    for (const act of acts) taken.push(...(await takeTogether(actor, batchId, [act])));
    return taken;
  }
}

async function record(
  tx: Tx,
  actor: Actor,
  batchId: number,
  acts: readonly ScanAct[],
  accounts: LoadedAccount[],
): Promise<number[][]> {
  const batch = await loadBatch(tx, batchId);
  const pieces = acts.map(piecesOf);
  const keys = pieces.flatMap((some) => some.map((one) => one.key));
  const rows = await tx
    .select({ key: batchLine.key, id: batchLine.id })
    .from(batchLine)
    .where(inArray(batchLine.key, keys));
  const there = new Map(rows.map((row) => [row.key, row.id]));
  const fresh = pieces.flat().filter((one) => !there.has(one.key));
  if (fresh.length === 0) return pieces.map((some) => some.flatMap(({ key }) => there.get(key) ?? []));
  await refuseFull(tx, batch, fresh.length);
  // Held first: what others record at this moment is known, or waits.
  const numbers = await numbering(tx, batch.skuPattern);
  const shop: ShopNow = { accounts, numbers, known: await knownBefore(tx, fresh) };
  const ids: number[][] = [];
  let counted = 0;
  for (const some of pieces) {
    const lines: number[] = [];
    for (const { act, key, text, scan } of some) {
      let id = there.get(key);
      if (id === undefined) {
        const line = await recordLine(tx, { actor, batch, key, text, scan, settings: act.settings, shop });
        id = line.id;
        there.set(key, id);
        if (line.isPiece) counted++;
      }
      lines.push(id);
    }
    ids.push(lines);
  }
  await countPieces(tx, batch.runId, counted);
  await stillAsAsked(tx, accounts);
  return ids;
}

type Piece = { act: ScanAct; key: string; text: string; scan: Scan };

/** One for each code that arrived together. */
function piecesOf(act: ScanAct): Piece[] {
  const scans = readScans(act.text);
  const all: Scan[] = scans.length ? scans : [{ is: 'broken', text: act.text, why: 'Nothing was read' }];
  return all.map((scan, index) => ({
    act,
    key: index === 0 ? act.key : madeKey(`${act.key} ${index}`),
    text: all.length === 1 ? act.text : scan.is === 'code' ? scan.code : act.text,
    scan,
  }));
}

async function refuseFull(tx: Tx, batch: BatchRow, fresh: number): Promise<void> {
  if (batch.state === 'closed')
    throw new NettingError('conflict', `${batch.name} is closed`, { fix: 'Open it again, or scan into another batch' });
  const [found] = await tx.select({ lines: count() }).from(batchLine).where(eq(batchLine.batchId, batch.id));
  if ((found?.lines ?? 0) + fresh > mostLines)
    throw new NettingError('invalid', `A batch holds ${mostLines.toLocaleString('en')} lines`, {
      fix: 'Begin another batch for what is left',
    });
}
