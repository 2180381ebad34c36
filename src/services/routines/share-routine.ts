import { accountsIn, type Routine, type RoutineFile, routineFileFormat, withAccounts } from '../../core/edit';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { account } from '../../db/schema';
import type { Actor } from '../access/actor';
import { loadRoutine } from './load-routine';
import { saveRoutine } from './save-routine';

const accountsHere = () =>
  database().select({ id: account.id, market: account.market, name: account.name }).from(account);

/** A routine as a file for another shop, whose accounts have other numbers. */
export async function writeRoutineFile(id: number): Promise<RoutineFile> {
  const { name, filter, steps, send } = await loadRoutine(id);
  const here = await accountsHere();
  const named = accountsIn({ filter, steps }).flatMap((one) => here.find((other) => other.id === one) ?? []);
  const routine = withAccounts<Routine>({ name, filter, steps, send }, (one) => {
    const at = named.findIndex((other) => other.id === one);
    return at < 0 ? undefined : at + 1;
  });
  if (!routine)
    throw new NettingError('invalid', 'It names an account that is not connected any more', {
      fix: 'Take that account out of its steps or its filter first',
    });
  return {
    format: routineFileFormat,
    accounts: named.map(({ market, name: called }) => ({ market, name: called })),
    routine,
  };
}

/** Takes a routine over from a file: its accounts are those here of the same marketplace, of the same name if there is one. */
export async function readRoutineFile(actor: Actor, { accounts, routine }: RoutineFile): Promise<{ id: number }> {
  const here = await accountsHere();
  const missing = new Set<string>();
  const read = withAccounts<Routine>(routine, (number) => {
    const said = accounts[number - 1];
    if (!said) {
      missing.add(`account ${number} of the file`);
      return undefined;
    }
    const there = here.filter((one) => one.market === said.market);
    const found = there.find((one) => one.name === said.name) ?? there[0];
    if (!found) missing.add(said.name);
    return found?.id;
  });
  if (!read)
    throw new NettingError('invalid', `There is no such account here: ${[...missing].join(', ')}`, {
      field: 'accounts',
      fix: 'Connect an account on that marketplace first',
    });
  return saveRoutine(actor, read);
}
