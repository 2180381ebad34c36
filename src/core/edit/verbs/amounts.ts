import { z } from 'zod';
import { amountToText, homeCurrency, share } from '../../measure/money';
import { type RoundingName, roundingNames, roundings, roundTo } from '../../measure/rounding';
import { defineVerb, type VerbContext, type VerbOutcome } from './verb';

const amount = z.number().int().min(0).max(100_000_000_00);
/** How a new amount shall end, and what it never goes under and over: those two in the shop's own currency. */
export const bounds = {
  rounding: z.enum(roundingNames).default('none'),
  floor: amount.nullable().default(null),
  ceiling: amount.nullable().default(null),
};
type Bounds = { rounding: RoundingName; floor: number | null; ceiling: number | null };

const noRate: VerbOutcome = { refused: 'No exchange rate is known for it' };

/** An amount of the shop's own currency as the field counts; undefined while no rate is known. */
export const inField = (amount: number | null, { there }: VerbContext): number | null | undefined =>
  amount === null || !there ? amount : (there(amount) ?? undefined);

/** The bounds in the currency of the field; null while no rate is known. */
function boundsThere<T extends Bounds>(args: T, context: VerbContext): T | null {
  const [floor, ceiling] = [inField(args.floor, context), inField(args.ceiling, context)];
  return floor === undefined || ceiling === undefined ? null : { ...args, floor, ceiling };
}

export const roundingLabels: Record<RoundingName, string> = {
  none: 'As it is',
  whole: 'Whole',
  half: '.00, .50',
  ninetyNine: '.99',
  ninety: '.90',
};

/**
 * The amount as it shall end, within its bounds.
 * @param change the old amount, and whether it is to fall: a cut never ends above it, nor a rise below, because of an ending
 *   or a bound. Null where there is nothing to compare with.
 */
export function within(
  wanted: number,
  { rounding, floor, ceiling }: Bounds,
  change: { old: number; isCut: boolean } | null,
): number {
  const rounded = roundTo(wanted, roundings[rounding]);
  if (change === null) return Math.min(Math.max(rounded, floor ?? 0), ceiling ?? Number.POSITIVE_INFINITY);
  const { old, isCut } = change;
  const least = Math.min(floor ?? 0, old);
  const most = Math.max(ceiling ?? Number.POSITIVE_INFINITY, old);
  return isCut ? Math.min(Math.max(rounded, least), old) : Math.max(Math.min(rounded, most), old);
}

const missing = ({ field }: VerbContext): VerbOutcome => ({
  refused: `It has no ${field.label.toLowerCase()} to change`,
});
export const positive = (wanted: number, bounded: number, { field }: VerbContext): VerbOutcome =>
  wanted > 0 && bounded > 0 ? { to: bounded } : { refused: `Its ${field.label.toLowerCase()} would not be above zero` };

export const sayBounds = ({ rounding, floor, ceiling }: Bounds): string =>
  [
    rounding === 'none' ? '' : `, ending ${roundingLabels[rounding]}`,
    floor === null ? '' : `, never under ${amountToText(floor, homeCurrency)}`,
    ceiling === null ? '' : `, never over ${amountToText(ceiling, homeCurrency)}`,
  ].join('');
const signed = (value: number, text: string) => `${value > 0 ? '+' : '−'}${text}`;

export const percentVerb = defineVerb({
  name: 'percent',
  label: 'Change by percent',
  kinds: ['money'],
  schema: z
    .object({
      verb: z.literal('percent'),
      /** Basis points: −500 lowers by 5 %. */
      basisPoints: z.number().int().min(-9_900).max(100_000),
      ...bounds,
    })
    .strict(),
  apply(args, value, context) {
    if (typeof value !== 'number') return missing(context);
    const limits = boundsThere(args, context);
    if (!limits) return noRate;
    const wanted = value + share(value, args.basisPoints);
    return positive(wanted, within(wanted, limits, { old: value, isCut: args.basisPoints < 0 }), context);
  },
  say: (args) => `${signed(args.basisPoints, `${Math.abs(args.basisPoints) / 100} %`)}${sayBounds(args)}`,
});

export const amountVerb = defineVerb({
  name: 'amount',
  label: 'Change by an amount',
  kinds: ['money'],
  schema: z
    .object({ verb: z.literal('amount'), amount: z.number().int().min(-100_000_000).max(100_000_000), ...bounds })
    .strict(),
  apply(args, value, context) {
    if (typeof value !== 'number') return missing(context);
    const limits = boundsThere(args, context);
    if (!limits) return noRate;
    const wanted = value + args.amount;
    return positive(wanted, within(wanted, limits, { old: value, isCut: args.amount < 0 }), context);
  },
  say: (args, { currency }) =>
    `${signed(args.amount, amountToText(Math.abs(args.amount), currency))}${sayBounds(args)}`,
});

export const formulaVerb = defineVerb({
  name: 'formula',
  label: 'Compute by a formula',
  kinds: ['money', 'whole', 'number', 'weight', 'length'],
  schema: z.object({ verb: z.literal('formula'), formula: z.string().max(500), ...bounds }).strict(),
  apply(args, _value, context) {
    const read = context.engines.readFormula(args.formula);
    if ('fault' in read) return { refused: read.fault };
    const result = read.of(context.fieldAt);
    if (typeof result !== 'number') return result;
    const { is } = context.field.kind;
    if (is === 'money') {
      const limits = boundsThere(args, context);
      if (!limits) return noRate;
      const wanted = Math.round(result * 100);
      return positive(wanted, within(wanted, limits, null), context);
    }
    return { to: is === 'number' ? result : Math.round(is === 'length' ? result * 10 : result) };
  },
  say: (args) => `= ${args.formula.trim()}${sayBounds(args)}`,
});

export const endingVerb = defineVerb({
  name: 'ending',
  label: 'Let it end with',
  kinds: ['money'],
  schema: z.object({ verb: z.literal('ending'), rounding: z.enum(roundingNames) }).strict(),
  apply: ({ rounding }, value, context) =>
    typeof value === 'number' ? { to: roundTo(value, roundings[rounding]) } : missing(context),
  say: ({ rounding }) => `ending ${roundingLabels[rounding]}`,
});

const number = z.number().min(-1_000_000_000).max(1_000_000_000);

export const boundsVerb = defineVerb({
  name: 'bounds',
  label: 'Keep within',
  kinds: ['money', 'whole', 'number', 'weight', 'length'],
  schema: z
    .object({ verb: z.literal('bounds'), least: number.nullable(), most: number.nullable() })
    .strict()
    .refine(({ least, most }) => least !== null || most !== null, 'Name the least, the most, or both')
    .refine(({ least, most }) => least === null || most === null || least <= most, 'The least is above the most'),
  apply({ least, most }, value, context) {
    if (typeof value !== 'number') return missing(context);
    // Of money both are amounts of the shop's own currency, as every floor is.
    const isMoney = context.field.kind.is === 'money';
    const [low, high] = isMoney ? [inField(least, context), inField(most, context)] : [least, most];
    if (low === undefined || high === undefined) return noRate;
    return { to: Math.min(Math.max(value, low ?? value), high ?? Number.POSITIVE_INFINITY) };
  },
  say: ({ least, most }, { field }) =>
    [
      least === null ? '' : `at least ${field.show(least, { currency: homeCurrency })}`,
      most === null ? '' : `at most ${field.show(most, { currency: homeCurrency })}`,
    ]
      .filter(Boolean)
      .join(', '),
});

export const addVerb = defineVerb({
  name: 'add',
  label: 'Add or take away',
  kinds: ['whole', 'number', 'weight', 'length'],
  schema: z.object({ verb: z.literal('add'), by: number }).strict(),
  apply({ by }, value, context) {
    if (typeof value !== 'number') return missing(context);
    const sum = context.field.kind.is === 'number' ? value + by : Math.round(value + by);
    if (context.field.traits.ledger && sum < 0)
      return { refused: `Only ${value} in stock, ${-by} cannot be taken away` };
    return { to: sum };
  },
  say: ({ by }, { field, currency }) => signed(by, field.show(Math.abs(by), { currency })),
});

export const allowanceVerb = defineVerb({
  name: 'allowance',
  label: 'Add an allowance',
  kinds: ['weight', 'length'],
  schema: z.object({ verb: z.literal('allowance'), percent: z.number().min(-90).max(1_000) }).strict(),
  apply: ({ percent }, value, context) =>
    typeof value === 'number' ? { to: Math.round(value * (1 + percent / 100)) } : missing(context),
  say: ({ percent }) => signed(percent, `${Math.abs(percent)} %`),
});
