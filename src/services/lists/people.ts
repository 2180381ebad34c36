import { desc, lt } from 'drizzle-orm';
import { database } from '../../db/client';
import { peopleEvent } from '../../db/schema';
import { heads, type ListFile, pages } from './list-file';

const portion = 1_000;

async function eventsBefore(before = Number.MAX_SAFE_INTEGER) {
  const events = await database()
    .select()
    .from(peopleEvent)
    .where(lt(peopleEvent.id, before))
    .orderBy(desc(peopleEvent.id))
    .limit(portion);
  return { events, next: events.length < portion ? null : (events.at(-1)?.id ?? null) };
}

/** Everything that was done about the people of the shop, and who signed in or tried to, the newest first. */
export const peopleEventList: ListFile<unknown> = {
  name: 'people',
  columns: heads('at', 'who', 'kind', 'what'),
  async *rows() {
    for await (const { events } of pages<number, Awaited<ReturnType<typeof eventsBefore>>>(eventsBefore))
      for (const one of events)
        yield [one.at.toISOString(), one.byName, one.kind === 'sign-in' ? 'sign-in' : 'done', one.what];
  },
};
