import { database } from '../db/client';
import { type LoadedAccount, loadAccounts } from '../services/records/accounts/load-accounts';

const gatherMs = 3;

/** Accounts as they are right now; those that are asked for at the same moment are read together. */
export class AccountLoader {
  #wanted = new Set<number>();
  #next: Promise<LoadedAccount[]> | null = null;

  async load(id: number): Promise<LoadedAccount | undefined> {
    this.#wanted.add(id);
    this.#next ??= new Promise<void>((resolve) => setTimeout(resolve, gatherMs)).then(() => {
      const ids = [...this.#wanted];
      this.#wanted = new Set();
      this.#next = null;
      return loadAccounts(database(), ids);
    });
    return (await this.#next).find((one) => one.id === id);
  }
}
