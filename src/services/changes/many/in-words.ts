import type { Field } from '../../../core/field';
import type { Json } from '../../../core/json';
import { toPlainText } from '../../../core/listing';

/** A value as it is read on a screen: text without marks, a clip by what it is and not by its hash. */
export function inWords(field: Field, value: Json, currency: string): string {
  if (field.kind.is === 'clip') return value ? 'A clip' : '';
  const said = field.show(value, { currency });
  return field.kind.is === 'rich' ? toPlainText(said) : said;
}
