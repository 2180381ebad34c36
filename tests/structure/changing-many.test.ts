import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { verbsFor } from '../../src/core/edit';
import { fieldsFor, type KindName } from '../../src/core/field';

const page = join(__dirname, '../../docs/changing-many.md');
const begin = '<!-- verbs: made from the catalogue -->';
const end = '<!-- /verbs -->';

const kindNames: [KindName, string][] = [
  ['text', 'text'],
  ['rich', 'rich text'],
  ['money', 'money'],
  ['whole', 'whole number'],
  ['number', 'number'],
  ['weight', 'weight'],
  ['length', 'length'],
  ['date', 'date'],
  ['choice', 'choice'],
  ['boolean', 'yes or no'],
  ['list', 'list'],
  ['map', 'names with values'],
  ['priceRule', 'price of a combination'],
  ['axes', 'axes'],
];

/** The table of verbs by kind, with the fields that are of the kind. */
function table(): string {
  const { fields } = fieldsFor();
  const rows = kindNames.map(([kind, name]) => {
    const own = fields.filter((field) => field.kind.is === kind).map((field) => field.label.toLowerCase());
    const verbs = verbsFor(kind).map((verb) => verb.label.toLowerCase());
    return `| ${name} | ${[...new Set(own)].join(', ') || 'fields of your own'} | ${verbs.join(', ')} |`;
  });
  return ['| kind | fields | what can be done |', '|---|---|---|', ...rows].join('\n');
}

test('the table of kinds and verbs in the docs is the catalogue’s', () => {
  const text = readFileSync(page, 'utf8');
  const [before = '', rest = ''] = text.split(begin);
  const [shown = '', after = ''] = rest.split(end);
  // `REWRITE_DOCS=1 npx jest changing-many` writes it anew.
  if (process.env.REWRITE_DOCS) writeFileSync(page, `${before}${begin}\n\n${table()}\n\n${end}${after}`);
  else expect(shown.trim()).toBe(table());
});
