import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { conditionIds } from '../../core/item/condition';
import {
  type ContentLine,
  expandContents,
  joinParts,
  mostLots,
  type Opened,
  type Parts,
  partsKey,
  readContents,
} from '../../core/kit';
import { database, type Tx, transaction } from '../../db/client';
import { type KitRow, kitLot } from '../../db/schema';
import type { Connector, Session } from '../../markets';
import { openAccount } from '../records/accounts/open-account';
import { lotsOf } from './find-kit';
import { loadKit, refuseClosed } from './load-kit';

/** Sets within a set that are asked for; one that holds more is kept as it is from there on. */
const mostSets = 200;

export const addContentsSchema = z
  .object({
    from: z.discriminatedUnion('is', [
      z.object({ is: z.literal('text'), text: z.string().min(1, 'Nothing is written').max(2_000_000) }).strict(),
      z.object({ is: z.literal('catalogue'), entry: z.string().trim().min(1, 'Which set?').max(60) }).strict(),
    ]),
    times: z.number().int().min(1, 'At least one').max(10_000),
    with: z.array(z.enum(['spare', 'paper', 'box'])),
    opensSets: z.boolean().default(true),
    condition: z.enum(conditionIds).nullable().default(null),
  })
  .strict();
type AddContents = z.output<typeof addContentsSchema>;

export const addedSchema = z.object({
  pieces: z.number(),
  /** Lots that are new, and those that more was added to. */
  made: z.number(),
  added: z.number(),
  /** What was joined with other lines: how many lines each lot is made of now. */
  joined: z.array(z.object({ name: z.string(), finish: z.string(), lines: z.number() })),
});
type Added = z.infer<typeof addedSchema>;

/** Puts the contents of so many sets among the lots; what is equal becomes one lot, also with what is there already. */
export async function addContents(id: number, input: AddContents): Promise<Added> {
  const kit = await loadKit(database(), id);
  refuseClosed(kit);
  const { set, within } =
    input.from.is === 'text'
      ? { set: written(input.from.text, kit.name), within: new Map() }
      : await published(kit, input);
  const parts = joinParts(expandContents(set, within, input));
  if (parts.length === 0)
    throw new NettingError('invalid', 'Nothing of it counts', {
      field: 'with',
      fix: 'Take spares, papers or the box, too',
    });
  return transaction((tx) => store(tx, id, parts));
}

function written(text: string, name: string): Opened {
  const { lines, faults } = readContents(text);
  const said = faults.map(({ line, text: row, why }) => `Line ${line}, “${row}”: ${why}`);
  if (said[0])
    throw new NettingError('invalid', said[0], {
      field: 'text',
      details: said.slice(0, 50).map((message) => ({ field: 'text', message })),
    });
  if (lines.length === 0) throw new NettingError('invalid', 'Nothing is written', { field: 'text' });
  return { entry: '', name, lines };
}

/** What the catalogue says of a set, and of the sets within it. */
async function published(
  { accountId }: KitRow,
  { from, opensSets }: AddContents,
): Promise<{ set: Opened; within: Map<string, ContentLine[]> }> {
  const entry = from.is === 'catalogue' ? from.entry : '';
  if (accountId === null)
    throw new NettingError('invalid', 'These sets belong to no catalogue', {
      field: 'entry',
      fix: 'Write what they hold',
    });
  const { session, connector } = await openAccount(accountId);
  const lines = await contentsOf(connector, session, entry);
  if (lines.length === 0)
    throw new NettingError('invalid', `${connector.name} says of ${entry} that it holds nothing: it is no set`, {
      field: 'entry',
    });
  const within = new Map<string, ContentLine[]>();
  const setsIn = (some: readonly ContentLine[]) => some.flatMap((line) => (line.isSet ? [line.entry] : []));
  for (let open = opensSets ? setsIn(lines) : []; open.length && within.size < mostSets; ) {
    const fresh = [...new Set(open)].filter((one) => !within.has(one)).slice(0, mostSets - within.size);
    for (const one of fresh) within.set(one, await contentsOf(connector, session, one));
    open = fresh.flatMap((one) => setsIn(within.get(one) ?? []));
  }
  return { set: { entry, name: entry, lines }, within };
}

async function contentsOf(connector: Connector, session: Session, entry: string): Promise<ContentLine[]> {
  if (!connector.contents)
    throw new NettingError('invalid', `${connector.name} does not say what sets hold`, { field: 'entry' });
  return connector.contents(session, entry);
}

async function store(tx: Tx, id: number, parts: readonly Parts[]): Promise<Added> {
  refuseClosed(await loadKit(tx, id, true));
  const there = new Map(
    (await lotsOf(tx, id))
      .filter((lot) => lot.state === 'open' || lot.state === 'later')
      .map((lot) => [partsKey(lot), lot]),
  );
  const fresh = parts.filter((one) => !there.has(partsKey(one)));
  if (there.size + fresh.length > mostLots)
    throw new NettingError('invalid', `More than ${mostLots.toLocaleString('en')} lots`, {
      fix: 'Begin another list for what is left',
    });
  const joined: Added['joined'] = [];
  const note = (one: Parts) => {
    if (one.from.length > 1) joined.push({ name: one.name, finish: one.finish, lines: one.from.length });
  };
  for (const one of parts) {
    const lot = there.get(partsKey(one));
    if (!lot) continue;
    const from = [...lot.from, ...one.from];
    await tx
      .update(kitLot)
      .set({
        quantity: lot.quantity + one.quantity,
        grams: lot.grams ?? one.grams,
        from,
        version: lot.version + 1,
      })
      .where(eq(kitLot.id, lot.id));
    note({ ...one, from });
  }
  for (const one of fresh) note(one);
  for (let at = 0; at < fresh.length; at += 500)
    await tx.insert(kitLot).values(
      fresh.slice(at, at + 500).map((one) => ({
        ...one,
        kitId: id,
        price: null,
        comment: '',
        place: '',
        state: 'open' as const,
        itemId: null,
      })),
    );
  const pieces = parts.reduce((sum, one) => sum + one.quantity, 0);
  return { pieces, made: fresh.length, added: parts.length - fresh.length, joined };
}
