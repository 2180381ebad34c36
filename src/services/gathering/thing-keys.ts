import type { FoundRow } from '../../db/schema';

/** Where a thing stands: an account. */
export const placeOfAccount = (id: number) => `account:${id}`;
/** What a thing is called wherever it is compared, whichever bringing in it comes with. */
export const keyOfFound = ({ accountId, remoteId }: Pick<FoundRow, 'accountId' | 'remoteId'>) =>
  `remote:${accountId}:${remoteId}`;
export const keyOfItem = (id: number) => `item:${id}`;
