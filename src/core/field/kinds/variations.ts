import { z } from 'zod';
import type { Axis, Variation } from '../../item/variations';
import { axisSchema, mostAxes, mostCombinations, variationSchema } from '../../item/variations';
import { amountToText, parseAmount } from '../../measure/money';
import type { FieldContext, KindVerbs, Read } from '../kind';
import { wholeKind } from './amounts';
import { booleanKind } from './choices';
import { escapeText, splitText, unescapeText } from './escape';

/** `12.90` is a price of its own, `+2.00` and `-1.50` differ from the item's; nothing follows the item. */
export const priceRuleKind: KindVerbs<'priceRule'> = {
  read(_kind, text, { currency }): Read {
    const clean = text.trim();
    if (clean === '') return { value: null };
    const sign = /^[+−-]/.exec(clean)?.[0];
    const amount = parseAmount(sign ? clean.slice(1) : clean, currency);
    if (amount === null || amount < 0) return { problem: 'Write 12.90, +2.00 or -1.50' };
    if (!sign) return { value: { kind: 'own', amount } };
    return { value: { kind: 'difference', amount: sign === '+' ? amount : 0 - amount } };
  },
  show(_kind, value, { currency }) {
    const rule = variationSchema.shape.price.safeParse(value).data;
    if (!rule) return '';
    const text = amountToText(Math.abs(rule.amount), currency);
    if (rule.kind === 'own') return text;
    return `${rule.amount < 0 ? '-' : '+'}${text}`;
  },
  fault: (_kind, value) =>
    variationSchema.shape.price.safeParse(value).success ? null : 'Write 12.90, +2.00 or -1.50',
};

const axesSchema = z.array(axisSchema).max(mostAxes);

/** `Colour: red, black (photo)`, one axis a line. */
export const axesKind: KindVerbs<'axes'> = {
  read(_kind, text): Read {
    const value = splitText(text, '\n')
      .filter(Boolean)
      .map((line): Axis => {
        const [name = '', ...rest] = splitText(line, ':');
        const photos: Record<string, string> = {};
        const values = splitText(rest.join(':'), ',')
          .filter(Boolean)
          .map((one) => {
            const hit = /^(.*) \(([0-9a-f]{64})\)$/s.exec(one);
            const said = unescapeText(hit?.[1] ?? one).trim();
            if (hit?.[2]) photos[said] = hit[2];
            return said;
          });
        return { name: unescapeText(name), values, ...(Object.keys(photos).length ? { photos } : {}) };
      });
    const fault = axesKind.fault({ is: 'axes' }, value);
    return fault ? { problem: fault } : { value };
  },
  show(_kind, value) {
    const axes = axesSchema.safeParse(value).data ?? [];
    return axes
      .map(({ name, values, photos }) => {
        const said = values.map((one) => {
          const photo = photos && Object.hasOwn(photos, one) ? photos[one] : undefined;
          return `${escapeText(one, ':,')}${photo ? ` (${photo})` : ''}`;
        });
        return `${escapeText(name, ':')}: ${said.join(', ')}`;
      })
      .join('\n');
  },
  fault: (_kind, value) => axesSchema.safeParse(value).error?.issues[0]?.message ?? null,
};

const rowsSchema = z.array(variationSchema).max(mostCombinations);
const onOff = { is: 'boolean', words: ['on', 'off'] } as const;
const units = { is: 'whole', least: 0, most: 1_000_000 } as const;

/** One combination a line: values, on or off, stock number, units, price, barcode, key, apart by bars. */
const line = (row: Variation, context: FieldContext): string =>
  [
    row.values.map((one) => escapeText(one, '/|')).join(' / '),
    row.on ? 'on' : 'off',
    row.sku,
    String(row.quantity),
    priceRuleKind.show({ is: 'priceRule' }, row.price, context),
    escapeText(row.barcode, '|'),
    row.key,
  ].join(' | ');

function readLine(text: string, context: FieldContext): Variation | { problem: string } {
  const [values = '', on = '', sku = '', quantity = '', price = '', barcode = '', key = ''] = splitText(text, '|');
  const cells = {
    on: booleanKind.read(onOff, on, context),
    quantity: wholeKind.read(units, quantity, context),
    price: priceRuleKind.read({ is: 'priceRule' }, price, context),
  };
  for (const cell of Object.values(cells)) if ('problem' in cell) return cell;
  const row = variationSchema.safeParse({
    values: splitText(values, '/').map(unescapeText),
    on: 'value' in cells.on && cells.on.value === true,
    sku,
    quantity: ('value' in cells.quantity && cells.quantity.value) || 0,
    price: 'value' in cells.price ? cells.price.value : null,
    barcode: unescapeText(barcode),
    key,
  });
  return row.success ? row.data : { problem: row.error.issues[0]?.message ?? 'This is no combination' };
}

export const combinationsKind: KindVerbs<'combinations'> = {
  read(_kind, text, context): Read {
    const value: Variation[] = [];
    for (const one of splitText(text, '\n').filter(Boolean)) {
      const row = readLine(one, context);
      if ('problem' in row) return row;
      value.push(row);
    }
    const fault = combinationsKind.fault({ is: 'combinations' }, value);
    return fault ? { problem: fault } : { value };
  },
  show: (_kind, value, context) => (rowsSchema.safeParse(value).data ?? []).map((row) => line(row, context)).join('\n'),
  fault: (_kind, value) => rowsSchema.safeParse(value).error?.issues[0]?.message ?? null,
};
