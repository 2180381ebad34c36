import type { Json } from '../json';
import { toPlainText } from '../listing/fit/plain-text';
import { formatMoney } from '../measure/money';
import type { FieldContext, Kind } from './kind';
import { showAs } from './kinds';

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;
const rowsIn = (value: Json): number => {
  if (Array.isArray(value)) return value.length;
  const rows = typeof value === 'object' && value !== null ? value.rows : undefined;
  return Array.isArray(rows) ? rows.length : 0;
};

/** A value as a person reads it in a row: amounts with their currency, pictures and combinations counted. Nothing is ''. */
export function brief(kind: Kind, value: Json, context: FieldContext): string {
  if (value === null || value === '') return '';
  switch (kind.is) {
    case 'money':
      return typeof value === 'number' ? formatMoney(value, context.currency) : String(value);
    case 'rich':
      return toPlainText(String(value));
    case 'size':
      return Array.isArray(value) ? showAs(kind, value, context).replaceAll(' x ', ' × ') : JSON.stringify(value);
    case 'photos':
      return counted(rowsIn(value), 'photo', 'photos');
    case 'clip':
      return 'A clip';
    case 'combinations':
      return counted(rowsIn(value), 'combination', 'combinations');
    case 'list':
      return Array.isArray(value)
        ? value.map((one) => kind.choices?.find((choice) => choice.id === one)?.label ?? String(one)).join(', ')
        : String(value);
    case 'choice':
      return kind.choices.find((one) => one.id === value)?.label ?? String(value);
    case 'map':
    case 'axes':
      return showAs(kind, value, context).replaceAll('\n', '; ') || (rowsIn(value) ? JSON.stringify(value) : '');
    default:
      if (typeof value === 'boolean') return value ? 'Yes' : 'No';
      return typeof value === 'object' ? JSON.stringify(value) : showAs(kind, value, context);
  }
}
