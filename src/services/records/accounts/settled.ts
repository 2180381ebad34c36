import { isDuplicate, type Tx } from '../../../db/client';
import { asOfNow, type LoadedAccount } from './load-accounts';

const mostTries = 5;

/** What the shop's listings follow from became another while something was recorded with what was before. */
class Overtaken extends Error {}

/** Throws where the accounts are not any more what was computed with; asked last of all before a commit. */
export async function stillAsAsked(tx: Tx, accounts: LoadedAccount[]): Promise<void> {
  if ((await asOfNow(tx, accounts)) !== accounts) throw new Overtaken();
}

/** Once more where it was overtaken, or where the same was sent twice at the same moment: then it is there. */
export async function settled<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      if (attempt >= mostTries || !(error instanceof Overtaken || isDuplicate(error))) throw error;
    }
  }
}
