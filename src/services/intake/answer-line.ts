import { eq } from 'drizzle-orm';
import { readScans } from '../../core/barcode';
import type { Change } from '../../core/change';
import { NettingError } from '../../core/errors';
import type { Json } from '../../core/json';
import type { Tx } from '../../db/client';
import { type BatchLineRow, type BatchRow, batchLine } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { numbering } from '../changes/commit/free-sku';
import { allCommitted } from '../changes/commit/refusal-error';
import { loadAccounts } from '../records/accounts/load-accounts';
import { stillAsAsked } from '../records/accounts/settled';
import { fillFrom } from './fill-from';
import type { AnswerAct } from './intake-act';
import { knownBefore } from './known-before';
import { countPieces, recordLine } from './record-line';

/** What was asked of a line is answered: its grade, its price, its date, what it is. */
export async function answerLine(
  tx: Tx,
  actor: Actor,
  batch: BatchRow,
  line: BatchLineRow,
  answer: AnswerAct,
): Promise<void> {
  if (line.isUndone) throw new NettingError('conflict', 'This scan was taken back', { fix: 'Scan the piece again' });
  if (answer.text !== undefined) await readAgain(tx, actor, batch, line, answer.text);
  if (answer.entry !== undefined) {
    const entry = line.found.find((one) => `${one.market}/${one.id}` === answer.entry);
    if (!entry) throw new NettingError('not-found', 'This entry was not among those that were found');
    await fillFrom(tx, actor, batch.runId, line, entry);
    await tx.update(batchLine).set({ finding: 'found' }).where(eq(batchLine.id, line.id));
  }
  const said: [string, Json | undefined][] = [
    ['condition', answer.grade],
    ['price', answer.price],
    ['expiresOn', answer.expiresOn],
  ];
  const { itemId } = line;
  const changes = said.flatMap(([field, to]): Change[] =>
    to === undefined || itemId === null ? [] : [{ target: { item: itemId }, field, to }],
  );
  if (changes.length && itemId !== null)
    allCommitted(
      await commitItems(tx, [itemId], () => changes, {
        actor,
        why: 'scan',
        at: new Date(),
        runId: batch.runId,
        send: 'falls',
      }),
    );
  const answered = {
    ...(answer.grade ? { asksGrade: false } : {}),
    ...(answer.price === undefined ? {} : { asksPrice: false }),
  };
  if (Object.keys(answered).length) await tx.update(batchLine).set(answered).where(eq(batchLine.id, line.id));
}

/** A line of which nothing was made is read as what was meant. */
async function readAgain(tx: Tx, actor: Actor, batch: BatchRow, line: BatchLineRow, text: string): Promise<void> {
  if (line.kind !== 'none') throw new NettingError('conflict', 'This scan was recorded already');
  const [scan, ...more] = readScans(text);
  if (!scan || more.length || scan.is === 'broken')
    throw new NettingError('invalid', scan?.is === 'broken' ? scan.why : 'One code, or a name', { field: 'text' });
  await tx.delete(batchLine).where(eq(batchLine.id, line.id));
  const { key, settings } = line;
  const accounts = await loadAccounts(tx);
  const numbers = await numbering(tx, batch.skuPattern);
  const shop = { accounts, numbers, known: await knownBefore(tx, [{ text, scan }]) };
  const { isPiece } = await recordLine(
    tx,
    { actor, batch, key, text, scan, settings, shop },
    { id: line.id, at: line.at },
  );
  await countPieces(tx, batch.runId, isPiece ? 1 : 0);
  await stillAsAsked(tx, accounts);
}
