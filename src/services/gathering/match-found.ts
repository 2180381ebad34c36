import { eq, inArray, or, sql } from 'drizzle-orm';
import { type Decision, joinThings, type Thing } from '../../core/match';
import { type Executor, transaction } from '../../db/client';
import { type FoundRow, foundListing, matchDecision, matchQuestion } from '../../db/schema';
import { candidateItems } from '../listings/links/candidate-items';
import { loadAccounts } from '../records/accounts/load-accounts';
import { printsOf } from '../records/photos/photo-prints';
import { openHere } from './found-filter';
import { keyOfFound, keyOfItem } from './thing-keys';
import { thingOfFound, thingsOfItems } from './things';

/** Of how many listings without a known number words are looked for in the inventory. */
const mostLooks = 20_000;
const atOnce = 500;

async function decisionsOn(db: Executor, keys: readonly string[]): Promise<Decision[]> {
  const found = new Map<string, Decision>();
  for (let at = 0; at < keys.length; at += atOnce) {
    const some = keys.slice(at, at + atOnce);
    const rows = await db
      .select({ a: matchDecision.a, b: matchDecision.b, isSame: matchDecision.isSame })
      .from(matchDecision)
      .where(or(inArray(matchDecision.a, some), inArray(matchDecision.b, some)));
    for (const row of rows) found.set(`${row.a}\n${row.b}`, row);
  }
  const there = new Set(keys);
  return [...found.values()].filter((one) => there.has(one.a) && there.has(one.b));
}

/** Chosen listings of a bringing in that are in no item yet. */
const openRows = (db: Executor, gatheringId: number): Promise<FoundRow[]> =>
  db.select().from(foundListing).where(openHere(gatheringId)).orderBy(foundListing.id);

/**
 * Finds out which of the chosen listings are one thing, among themselves and with items that are there: what is certain is
 * noted, what is not becomes a question. What somebody has decided before holds.
 */
export async function matchFound(db: Executor, gatheringId: number, alive: () => Promise<void>): Promise<void> {
  const rows = await openRows(db, gatheringId);
  const accounts = new Map((await loadAccounts(db)).map((one) => [one.id, one]));
  const candidates = await candidateItems(db, rows, { most: mostLooks, alive });
  const prints = await printsOf(
    db,
    rows.flatMap((row) => row.hashes ?? []).filter((one) => one !== null),
  );
  const byKey = new Map(rows.map((row) => [keyOfFound(row), row]));
  const found = rows.flatMap((row): Thing[] => {
    const account = accounts.get(row.accountId);
    return account ? [thingOfFound(row, account, prints)] : [];
  });
  const things = [...found, ...(await thingsOfItems(db, candidates, alive))];
  const decisions = await decisionsOn(
    db,
    things.map((one) => one.id),
  );
  const { groups, questions } = joinThings(things, decisions);
  await alive();
  const noted = groups.flatMap((group) => {
    const there = group.flatMap((one) => byKey.get(one.id) ?? []);
    const first = Math.min(...there.map((row) => row.id));
    const item = group.find((one) => one.id.startsWith(keyOfItem(0).slice(0, -1)));
    const joinItem = item ? Number(item.id.slice('item:'.length)) : null;
    return there.map((row) => ({ id: row.id, thing: first, joinItem }));
  });
  // Two items of ours are never a question here.
  const asked = questions.filter(({ a, b }) => byKey.has(a.id) || byKey.has(b.id));
  await transaction(async (tx) => {
    for (let at = 0; at < noted.length; at += atOnce) {
      const some = noted.slice(at, at + atOnce);
      const pick = (value: (one: (typeof some)[number]) => number | null) =>
        sql.join([sql`case id`, ...some.map((one) => sql`when ${one.id} then ${value(one)}`), sql`end`], sql` `);
      await tx
        .update(foundListing)
        .set({ thing: pick((one) => one.thing), joinItem: pick((one) => one.joinItem) })
        .where(
          inArray(
            foundListing.id,
            some.map((one) => one.id),
          ),
        );
    }
    await keepQuestions(tx, gatheringId, asked);
  });
}

type Asked = ReturnType<typeof joinThings>['questions'];

/** The questions that are open now; answers that were given stay, what is not asked any more goes. */
async function keepQuestions(tx: Executor, gatheringId: number, asked: Asked): Promise<void> {
  const rows = asked.map(({ a, b, score, evidence }) => {
    const [first, second] = a.id < b.id ? [a.id, b.id] : [b.id, a.id];
    const kept = evidence.slice(0, 12).map(({ said, weight }) => ({ said, weight }));
    return { gatheringId, a: first, b: second, score, evidence: kept };
  });
  const known = await tx.select().from(matchQuestion).where(eq(matchQuestion.gatheringId, gatheringId));
  const now = new Set(rows.map((row) => `${row.a}\n${row.b}`));
  const gone = known.filter((row) => !now.has(`${row.a}\n${row.b}`)).map((row) => row.id);
  for (let at = 0; at < gone.length; at += atOnce)
    await tx.delete(matchQuestion).where(inArray(matchQuestion.id, gone.slice(at, at + atOnce)));
  for (let at = 0; at < rows.length; at += atOnce)
    await tx
      .insert(matchQuestion)
      .values(rows.slice(at, at + atOnce))
      .onDuplicateKeyUpdate({ set: { score: sql`values(\`score\`)`, evidence: sql`values(\`evidence\`)` } });
}
