import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { type ContentLine, type ContentsFault, type Opened, readContentRows, readContents } from '../../core/kit';
import { database } from '../../db/client';
import type { KitRow } from '../../db/schema';
import { readCsvText } from '../../files/csv-text';
import type { Connector, Session } from '../../markets';
import { latestRates } from '../records/accounts/latest-rates';
import { openAccount } from '../records/accounts/open-account';
import { lotsOf } from './find-kit';
import { loadKit } from './load-kit';

/** Sets within a set that are asked for; one that holds more is kept as it is from there on. */
const mostSets = 200;
const words = z.string().min(1, 'Nothing is written').max(4_000_000);

export const sourceSchema = z.discriminatedUnion('is', [
  z.object({ is: z.literal('text'), text: words }).strict(),
  z.object({ is: z.literal('catalogue'), entry: z.string().trim().min(1, 'Which set?').max(60) }).strict(),
  z.object({ is: z.literal('file'), text: words }).strict(),
  z.object({ is: z.literal('kit'), kit: z.number().int().positive() }).strict(),
]);
export type SourceGiven = z.output<typeof sourceSchema>;

/** What a source says that sets hold, and which numbers of it are others by now. */
export type ReadSource = {
  set: Opened;
  within: Map<string, readonly ContentLine[]>;
  renumbered: { was: string; now: string }[];
};

/** Reads what sets hold from where a person says that it stands. */
export async function readSource(kit: KitRow, from: SourceGiven, opensSets: boolean): Promise<ReadSource> {
  if (from.is === 'text') return given(kit, readContents(from.text));
  if (from.is === 'kit') return given(kit, { lines: await linesOfKit(from.kit), faults: [] });
  if (from.is === 'catalogue') return published(kit, from.entry, opensSets);
  const read = readContentRows(readCsvText(from.text), await latestRates(database()));
  return named(kit, given(kit, read).set);
}

function given({ name }: KitRow, { lines, faults }: { lines: ContentLine[]; faults: ContentsFault[] }): ReadSource {
  const said = faults.map(({ line, text: row, why }) => `Line ${line}, “${row}”: ${why}`);
  refuseFaults(said);
  if (lines.length === 0) throw new NettingError('invalid', 'Nothing is written', { field: 'text' });
  return { set: { entry: '', name, lines }, within: new Map(), renumbered: [] };
}

function refuseFaults(said: readonly string[]): void {
  const [first] = said;
  if (first === undefined) return;
  const more = said.length > 1 ? `, and ${(said.length - 1).toLocaleString('en')} more` : '';
  throw new NettingError('invalid', `${first}${more}`, {
    field: 'text',
    details: said.slice(0, 50).map((message) => ({ field: 'text', message })),
  });
}

/** Another set of one's own: what its lots are made of now, by the piece. */
async function linesOfKit(id: number): Promise<ContentLine[]> {
  const db = database();
  await loadKit(db, id);
  return (await lotsOf(db, id))
    .filter((lot) => lot.state !== 'out' && lot.quantity > 0)
    .map(({ entry, name, finish, quantity, grams, sort, condition, price, comment }) => ({
      entry,
      name,
      finish,
      quantity,
      grams,
      sort,
      kind: 'part',
      isSet: false,
      said: { condition, price, place: '', comment },
    }));
}

async function catalogueOf({ accountId }: KitRow): Promise<{ session: Session; connector: Connector }> {
  if (accountId === null)
    throw new NettingError('invalid', 'These sets belong to no catalogue', {
      field: 'entry',
      fix: 'Write what they hold',
    });
  return openAccount(accountId);
}

/** What an entry is numbered by now, said for each that is another. */
async function presentNumbers({ session, connector }: { session: Session; connector: Connector }) {
  const former = (await connector.formerNumbers?.(session)) ?? new Map<string, string>();
  const renumbered = new Map<string, string>();
  const now = (entry: string): string => {
    const other = former.get(entry);
    if (other === undefined) return entry;
    renumbered.set(entry, other);
    return other;
  };
  return { now, said: () => [...renumbered].map(([was, other]) => ({ was, now: other })) };
}

/** What the catalogue says of a set, and of the sets within it. */
async function published(kit: KitRow, asked: string, opensSets: boolean): Promise<ReadSource> {
  const catalogue = await catalogueOf(kit);
  const { connector } = catalogue;
  const numbers = await presentNumbers(catalogue);
  const entry = numbers.now(asked);
  const lines = await contentsOf(catalogue, entry, numbers.now);
  if (lines.length === 0)
    throw new NettingError('invalid', `${connector.name} says of ${entry} that it holds nothing: it is no set`, {
      field: 'entry',
    });
  const within = new Map<string, readonly ContentLine[]>();
  const setsIn = (some: readonly ContentLine[]) => some.flatMap((line) => (line.isSet ? [line.entry] : []));
  for (let open = opensSets ? setsIn(lines) : []; open.length && within.size < mostSets; ) {
    const fresh = [...new Set(open)].filter((one) => !within.has(one)).slice(0, mostSets - within.size);
    for (const one of fresh) within.set(one, await contentsOf(catalogue, one, numbers.now));
    open = fresh.flatMap((one) => setsIn(within.get(one) ?? []));
  }
  return { set: { entry, name: entry, lines }, within, renumbered: numbers.said() };
}

async function contentsOf(
  { connector, session }: { session: Session; connector: Connector },
  entry: string,
  now: (entry: string) => string,
): Promise<ContentLine[]> {
  if (!connector.contents)
    throw new NettingError('invalid', `${connector.name} does not say what sets hold`, { field: 'entry' });
  const lines = await connector.contents(session, entry);
  return lines.map((line) => ({ ...line, entry: now(line.entry) }));
}

/** Lines that are known by numbers alone get their names from the catalogue; numbers that it does not know are refused. */
async function named(kit: KitRow, set: Opened): Promise<ReadSource> {
  if (set.lines.every((line) => line.entry === '')) return { set, within: new Map(), renumbered: [] };
  const catalogue = await catalogueOf(kit);
  const numbers = await presentNumbers(catalogue);
  const lines = set.lines.map((line) => ({ ...line, entry: numbers.now(line.entry) }));
  const wanted = [...new Set(lines.flatMap((line) => (line.entry ? [line.entry] : [])))];
  const known = new Map(
    ((await catalogue.connector.entries?.(catalogue.session, wanted)) ?? []).map((one) => [one.id, one]),
  );
  refuseFaults(
    wanted.filter((entry) => !known.has(entry)).map((entry) => `${catalogue.connector.name} has no entry ${entry}`),
  );
  return {
    set: {
      ...set,
      lines: lines.map((line) => {
        const thing = known.get(line.entry);
        return thing ? { ...line, name: thing.name, grams: line.grams ?? thing.grams } : line;
      }),
    },
    within: new Map(),
    renumbered: numbers.said(),
  };
}
