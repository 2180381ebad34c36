import { and, eq, inArray, isNull, lt, ne, or, sql } from 'drizzle-orm';
import { database } from '../../db/client';
import { foundListing, gatheredItem, gathering, matchQuestion } from '../../db/schema';

const keptDays = 90;
const portion = 1_000;

/** What was brought in long ago is told by its items; what was found then and never chosen is read anew when it is wanted. */
export async function forgetGatherings(now: Date, isEnding: () => boolean): Promise<void> {
  const db = database();
  const before = new Date(now.getTime() - keptDays * 86_400_000);
  const old = await db
    .select({ id: gathering.id })
    .from(gathering)
    .where(and(lt(gathering.at, before), eq(gathering.state, 'done')))
    .limit(portion);
  const ids = old.map((one) => one.id);
  const isDone = sql`not exists (select 1 from gathering g where g.id = ${foundListing.gatheringId} and ${ne(sql`g.state`, 'done')})`;
  for (let gone = portion; gone === portion && !isEnding(); )
    [{ affectedRows: gone }] = await db
      .delete(foundListing)
      .where(and(lt(foundListing.readAt, before), or(isNull(foundListing.gatheringId), isDone)))
      .limit(portion);
  if (ids.length === 0 || isEnding()) return;
  await db.delete(matchQuestion).where(inArray(matchQuestion.gatheringId, ids));
  await db.delete(gatheredItem).where(inArray(gatheredItem.gatheringId, ids));
  await db.delete(gathering).where(inArray(gathering.id, ids));
}
