import { type SQL, sql } from 'drizzle-orm';

/** Whether an item, by the name `i` of its table in a statement, is artwork: its listings follow from product templates. */
export const isArtwork: SQL = sql.raw('exists (select 1 from artwork w where w.item_id = i.id)');

/** Whether what is offered of an item is made of several combinations: its own variations, or prints of artwork. */
export const isOfSeveral: SQL = sql`(i.axes <> '[]' or ${isArtwork})`;
