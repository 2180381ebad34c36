import { database, type Executor } from '../../db/client';
import { peopleEvent } from '../../db/schema';
import type { Actor } from './actor';

/** Keeps who signed in, or tried to, and from where. */
export async function noteSignIn(name: string, what: string): Promise<void> {
  await database()
    .insert(peopleEvent)
    .values({ at: new Date(), kind: 'sign-in', byName: name.slice(0, 120), what: what.slice(0, 300) });
}

/** Keeps what was done about the people of the shop, and by whom. */
export async function noteAboutPeople(actor: Actor, what: string, db: Executor = database()): Promise<void> {
  await db.insert(peopleEvent).values({ at: new Date(), byName: actor.name.slice(0, 120), what: what.slice(0, 300) });
}
