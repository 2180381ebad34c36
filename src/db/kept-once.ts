import { AsyncLocalStorage } from 'node:async_hooks';
import { requestKey } from './schema';

type Rows = typeof requestKey.$inferInsert;
type Inserting = { insert(table: typeof requestKey): { values(row: Rows): PromiseLike<unknown> } };

/** A command that came with a key, and whether the key is on disk with something that it did. */
export type Keyed = { hash: string; what: string; state: 'open' | 'being-kept' | 'kept' };

// Next.js may load this module more than once a process; what a command belongs to must be one.
const kept = globalThis as typeof globalThis & { nettingCommands?: AsyncLocalStorage<Keyed> };
kept.nettingCommands ??= new AsyncLocalStorage();
const commands = kept.nettingCommands;

/** What is done inside belongs to this command: its first transaction keeps the key along with what it writes. */
export const within = <T>(command: Keyed, work: () => Promise<T>): Promise<T> => commands.run(command, work);

/**
 * Carries a transaction out; the first of a command that came with a key writes the key as well. Both are on disk, or neither:
 * who asks again after an answer that was lost finds the key exactly when something was done.
 */
export async function keptOnce<Tx extends Inserting, T>(
  run: (work: (tx: Tx) => Promise<T>) => Promise<T>,
  work: (tx: Tx) => Promise<T>,
): Promise<T> {
  const command = commands.getStore();
  if (command?.state !== 'open') return run(work);
  // Others that run beside it do not wait for it.
  command.state = 'being-kept';
  try {
    const done = await run(async (tx) => {
      await tx.insert(requestKey).values({ hash: command.hash, what: command.what, at: new Date() });
      return work(tx);
    });
    command.state = 'kept';
    return done;
  } catch (error) {
    command.state = 'open';
    throw error;
  }
}
