import type { Field } from '../../../core/field';
import type { Json } from '../../../core/json';
import { homeCurrency } from '../../../core/measure';
import { inWords } from './in-words';

const most = 160;

/**
 * A value in words, as short as a list of many has room for; nothing where nothing is written. An amount in another currency than
 * the shop's own says which.
 */
export function shortly(field: Field, value: Json, currency: string = homeCurrency): string {
  const said = inWords(field, value, currency);
  const text = field.kind.is === 'money' && said && currency !== homeCurrency ? `${said} ${currency}` : said;
  return text.length > most ? `${text.slice(0, most)}…` : text;
}
