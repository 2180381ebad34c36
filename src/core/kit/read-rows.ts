import { type ConditionGrade, conditionGrades } from '../item/condition';
import { homeCurrency, parseAmount } from '../measure/money';
import { homeAmount, type Rate } from '../measure/rate';
import { type ContentKind, type ContentLine, contentKinds } from './contents';
import { type ContentsFault, mostOfOne, piecesSaid } from './read-contents';

/** How the columns of a list may be called. */
const columns = {
  entry: ['entry', 'number', 'no', 'part', 'part number', 'catalogue number'],
  name: ['name', 'title', 'what', 'description'],
  finish: ['finish', 'colour', 'color'],
  quantity: ['quantity', 'qty', 'pieces', 'units', 'count'],
  condition: ['condition', 'grade'],
  price: ['price', 'price each'],
  place: ['place', 'drawer', 'location'],
  comment: ['comment', 'note', 'public comment'],
  grams: ['grams', 'weight'],
  sort: ['sort', 'category'],
  kind: ['kind', 'type'],
} as const;
type Column = keyof typeof columns;

const names = Object.entries(columns) as [Column, readonly string[]][]; // the keys of the list above

/**
 * Reads a list from a file: its first row names the columns, in any order; those of other names are left aside.
 * @param rates from the shop's currency, for prices in another one
 * @returns one line a row; a fault for every row that cannot be meant, by its number in the file
 */
export function readContentRows(
  rows: readonly (readonly string[])[],
  rates: readonly Rate[],
): { lines: ContentLine[]; faults: ContentsFault[] } {
  const [head = [], ...body] = rows;
  const at = new Map<Column, number>();
  for (const [index, cell] of head.entries()) {
    const said = cell.trim().toLowerCase();
    const found = names.find(([, words]) => words.includes(said));
    if (found && !at.has(found[0])) at.set(found[0], index);
  }
  if (!at.has('entry') && !at.has('name'))
    return {
      lines: [],
      faults: [
        { line: 1, text: head.join(', ').slice(0, 120), why: 'The first row names no column “entry” or “name”' },
      ],
    };
  const lines: ContentLine[] = [];
  const faults: ContentsFault[] = [];
  for (const [index, row] of body.entries()) {
    const cell = (column: Column) => row[at.get(column) ?? -1]?.trim() ?? '';
    if (row.every((one) => one.trim() === '')) continue;
    const read = readRow(cell, rates);
    if (typeof read === 'string') faults.push({ line: index + 2, text: row.join(', ').slice(0, 120), why: read });
    else lines.push(read);
  }
  return { lines, faults };
}

function readRow(cell: (column: Column) => string, rates: readonly Rate[]): ContentLine | string {
  const [entry, name, pieces] = [cell('entry'), cell('name'), cell('quantity')];
  if (!entry && !name) return 'What it is, is missing';
  const quantity = pieces === '' ? 1 : piecesSaid(pieces);
  if (quantity === null)
    return `“${pieces}” is not a whole number of pieces from 1 to ${mostOfOne.toLocaleString('en')}`;
  const price = cell('price') ? priceSaid(cell('price'), rates) : null;
  if (typeof price === 'string') return price;
  const condition = cell('condition') ? gradeSaid(cell('condition')) : null;
  if (cell('condition') && !condition) return `“${cell('condition')}” is no condition`;
  const weight = /^(\d{1,7})(?:\s*g)?$/i.exec(cell('grams'));
  if (cell('grams') && !weight) return `“${cell('grams')}” is no weight in whole grams`;
  const kind = cell('kind').toLowerCase();
  return {
    entry: entry.slice(0, 60),
    name: name.slice(0, 200),
    finish: cell('finish').slice(0, 60),
    quantity,
    grams: weight ? Number(weight[1]) : null,
    sort: cell('sort').slice(0, 120),
    kind: isKind(kind) ? kind : 'part',
    isSet: false,
    said: { condition, price, place: cell('place').slice(0, 60), comment: cell('comment').slice(0, 1_000) },
  };
}

const isKind = (word: string): word is ContentKind => contentKinds.some((one) => one === word);

const gradeSaid = (text: string): ConditionGrade | null => {
  const said = text.toLowerCase();
  return conditionGrades.find((one) => one.id === said || one.label.toLowerCase() === said)?.id ?? null;
};

const signs: Record<string, string> = { '€': 'EUR' };

/** An amount in the shop's currency, or why it is none. */
function priceSaid(text: string, rates: readonly Rate[]): number | string {
  const mark = /\p{Sc}|[A-Za-z]{2,3}/u.exec(text)?.[0] ?? homeCurrency;
  const currency = signs[mark] ?? mark.toUpperCase();
  const rate = rates.find((one) => one.to === currency) ?? null;
  if (currency !== homeCurrency && !rate) return `“${text}”: no exchange rate to ${mark} is known`;
  const amount = parseAmount(text, currency);
  const price = amount === null ? null : homeAmount(amount, currency, rate);
  return price !== null && price > 0 ? price : `“${text}” is no price`;
}
