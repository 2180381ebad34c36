import type { Json } from '@/core/json';
import { parseSides } from '@/core/measure/length';
import { parseAmount } from '@/core/measure/money';
import { parseWeight } from '@/core/measure/weight';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';

export type ReadTyped = { value: Json } | { problem: string };

/** What was typed or pasted for one marketplace, as the kind of value the field holds. */
export function readTyped(field: SheetField, column: Pick<SheetColumn, 'currency'>, typed: string): ReadTyped {
  const text = typed.trim();
  const choice = () =>
    field.choices?.find((one) => one.id === text || one.label.toLowerCase() === text.toLowerCase())?.id;
  switch (field.type) {
    case 'money': {
      const amount = parseAmount(text, column.currency);
      return amount === null || amount < 0 ? { problem: 'This is not an amount' } : { value: amount };
    }
    case 'whole': {
      if (field.field === 'weightGrams') {
        const grams = parseWeight(text);
        return grams === null ? { problem: 'Write 540 g, 1.2 kg or 1 lb 3 oz' } : { value: grams };
      }
      return /^\d{1,9}$/.test(text) ? { value: Number(text) } : { problem: 'A whole number is needed' };
    }
    case 'size': {
      const sides = parseSides(text);
      return sides ? { value: sides } : { problem: 'Write 30 x 20 x 10 cm' };
    }
    case 'list':
      return {
        value: text
          .split(/[,\n]/)
          .map((one) => one.trim())
          .filter(Boolean),
      };
    case 'boolean':
      if (/^(yes|true|1|on)$/i.test(text)) return { value: true };
      return /^(no|false|0|off)$/i.test(text) ? { value: false } : { problem: 'Write yes or no' };
    case 'choice': {
      const id = choice();
      return id === undefined
        ? { problem: `“${text}” is not in ${column.currency ? 'their' : 'the'} list` }
        : { value: id };
    }
    case 'date':
      return /^\d{4}-\d{2}-\d{2}$/.test(text) ? { value: text } : { problem: 'Write 2026-11-23' };
    default:
      return { value: typed };
  }
}
