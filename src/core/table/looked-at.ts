import { makeField } from '../field';
import { homeCurrency } from '../measure';
import type { Column } from './column';

/**
 * A column that is only looked at and never read back: of text, or of numbers that a spreadsheet may count with.
 * @param label what stands at its head; its id as well where nothing else is said
 */
export const lookedAtColumn = (label: string, { id = label, isNumber = false } = {}): Column => ({
  id,
  label,
  place: { of: 'item', field: id },
  field: isNumber ? makeField('item', id, { label, kind: { is: 'number', least: null, most: null } }) : null,
  currency: homeCurrency,
});
