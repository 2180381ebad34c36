import type { Json } from '@/core/json';
import { toPlainText } from '@/core/listing/fit/plain-text';
import { amountToText, formatMoney } from '@/core/measure/money';
import { formatWeight } from '@/core/measure/weight';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';

/** A value as a person reads it. */
export function shown(field: SheetField, column: Pick<SheetColumn, 'currency'>): string {
  const { value, choices } = field;
  if (value === null || value === '') return '';
  if (field.type === 'money') return formatMoney(Number(value), column.currency);
  if (field.field === 'weightGrams') return formatWeight(Number(value));
  if (field.field === 'size' && Array.isArray(value)) return `${value.map((side) => Number(side) / 10).join(' × ')} cm`;
  if (field.type === 'photos' && Array.isArray(value))
    return `${value.length} ${value.length === 1 ? 'photo' : 'photos'}`;
  if (field.type === 'variations') return `${field.length ?? 0} combinations`;
  if (typeof value === 'boolean') return value ? 'Yes' : 'No';
  const label = (one: Json) => choices?.find((choice) => choice.id === one)?.label ?? String(one);
  if (Array.isArray(value)) return value.map(label).join(', ');
  if (choices) return label(value);
  return field.field === 'description' ? toPlainText(String(value)) : String(value);
}

/** A value as it is written in a text field, and copied. */
export function written(field: SheetField, column: Pick<SheetColumn, 'currency'>): string {
  const { value } = field;
  if (value === null) return '';
  if (field.type === 'money') return typeof value === 'number' ? amountToText(value, column.currency) : '';
  if (field.field === 'weightGrams') return formatWeight(Number(value));
  if (field.type === 'size' && Array.isArray(value)) return `${value.map((side) => Number(side) / 10).join(' x ')} cm`;
  return Array.isArray(value) ? value.join(', ') : String(value);
}
