import { amountToText, homeCurrency } from '../../core/measure';
import { type Column, lookedAtColumn } from '../../core/table';

/** A list as a file has it: all its rows, in the order in which the page shows them. */
export type ListFile<Given> = { name: string; columns: Column[]; rows(given: Given): AsyncIterable<readonly Cell[]> };

/** What stands in a cell: nothing is an empty one. */
export type Cell = string | number | null | undefined;

/** Columns by their heads; one that ends with `#` holds numbers. */
export const heads = (...names: string[]): Column[] =>
  names.map((name) => lookedAtColumn(name.replace(/#$/, ''), { isNumber: name.endsWith('#') }));

/** An amount in minor units as plain decimals; empty where none is known. */
export const money = (amount: number | null, currency = homeCurrency): string =>
  amount === null ? '' : amountToText(amount, currency);

/** Every page of a list, one after the other, from its beginning. */
export async function* pages<Next, Page extends { next: Next | null }>(
  read: (from: Next | undefined) => Promise<Page>,
): AsyncGenerator<Page> {
  for (let from: Next | undefined; ; ) {
    const page = await read(from);
    yield page;
    if (page.next === null) return;
    from = page.next;
  }
}
