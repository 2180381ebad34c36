import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { tierFault } from '@/core/price/tiers';
import type { LotView } from '@/services/kits/find-kit';
import type { LotChange } from './use-lots';

/** Columns that are written into where they stand. */
export const writtenColumns = ['pieces', 'price', 'place', 'comment', 'tiers'] as const;
export type WrittenColumn = (typeof writtenColumns)[number];
export const isWritten = (column: string): column is WrittenColumn => writtenColumns.some((one) => one === column);

/** What stands in a cell. */
export function cellText(lot: LotView, column: WrittenColumn): string {
  switch (column) {
    case 'pieces':
      return String(lot.quantity);
    case 'price':
      return lot.price === null ? '' : amountToText(lot.price, homeCurrency);
    case 'tiers':
      return lot.tiers.join('; ');
    default:
      return lot[column];
  }
}

const whole = /^\d{1,7}$/;

/** What was typed into a cell as a change, or why it is none. */
export function readCell(lot: LotView, column: WrittenColumn, typed: string): { set: LotChange } | { why: string } {
  const text = typed.trim();
  switch (column) {
    case 'pieces':
      return whole.test(text) ? { set: { quantity: Number(text) } } : { why: 'A whole number of pieces' };
    case 'price': {
      if (text === '') return { set: { price: null } };
      const amount = parseAmount(text, homeCurrency);
      return amount !== null && amount > 0 ? { set: { price: amount } } : { why: 'No amount; write it as in 1.50' };
    }
    case 'place':
      return text.length > 60 ? { why: 'At most 60 signs' } : { set: { place: text } };
    case 'comment':
      return text.length > 1_000 ? { why: 'At most 1,000 signs' } : { set: { comment: text } };
    case 'tiers': {
      const tiers = text.split(';').flatMap((one) => (one.trim() ? [one.trim()] : []));
      if (tiers.length > 3) return { why: 'At most three tiers' };
      const why = tierFault(tiers, lot.price, homeCurrency);
      return why ? { why } : { set: { tiers } };
    }
  }
}
