import type { Actor } from '../access/actor';
import type { LoadedAccount } from '../records/accounts/load-accounts';

/** On whose behalf things are brought in, by which wishes, from which accounts. */
export type Maker = {
  gatheringId: number;
  actor: Actor;
  prefer: Readonly<Record<string, string>>;
  accounts: ReadonlyMap<number, LoadedAccount>;
};
