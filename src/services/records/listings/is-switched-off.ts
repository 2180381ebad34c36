import type { ListingRow } from '../../../db/schema';

/** Whether it was switched off there, also when it is to be switched on already: it goes on under the number that it has. */
export const isSwitchedOff = ({ remote, remoteId }: Pick<ListingRow, 'remote' | 'remoteId'>): boolean =>
  remoteId !== null && (remote === 'off' || remote === 'none');
