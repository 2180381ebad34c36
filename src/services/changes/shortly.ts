import type { Field } from '../../core/field';
import type { Json } from '../../core/json';
import { toPlainText } from '../../core/listing';
import { homeCurrency } from '../../core/measure';

const most = 160;

/**
 * A value in words, as short as a list of many has room for; nothing where nothing is written. An amount in another currency than
 * the shop's own says which.
 */
export function shortly(field: Field, value: Json, currency: string = homeCurrency): string {
  if (field.kind.is === 'clip') return value ? 'A clip' : '';
  const said = field.show(value, { currency });
  const amount = field.kind.is === 'money' && said && currency !== homeCurrency ? `${said} ${currency}` : said;
  const text = field.kind.is === 'rich' ? toPlainText(said) : amount;
  return text.length > most ? `${text.slice(0, most)}…` : text;
}
