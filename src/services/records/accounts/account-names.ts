import { database } from '../../../db/client';
import { account } from '../../../db/schema';

/** What each account is called, by its number. */
export async function accountNames(): Promise<Map<number, string>> {
  const rows = await database().select({ id: account.id, name: account.name }).from(account);
  return new Map(rows.map((one) => [one.id, one.name]));
}
