import { type Expression, Parser } from 'expr-eval-fork';
import type { Json } from '../../json';

/** Numbers and nothing else: no texts, no lists, no assignments, nothing of the world outside. */
const parser = new Parser({
  allowMemberAccess: false,
  operators: { assignment: false, fndef: false, in: false, concatenate: false, factorial: false },
});
const functions = ['min', 'max', 'if'];
const operators = ['-', '+', 'abs', 'ceil', 'floor', 'round', 'sqrt', 'not', '!'];
const keepOnly = (record: object, names: readonly string[]) => {
  for (const name of Object.keys(record)) if (!names.includes(name)) Reflect.deleteProperty(record, name);
};
keepOnly(parser.functions, functions);
keepOnly(parser.unaryOps, operators);
keepOnly(parser.consts, ['true', 'false']);

/** The names that a formula may use, and the fields that they stand for. Amounts are in the shop's currency, not in cents. */
export const formulaNames = {
  price: { field: 'price', per: 100 },
  cost: { field: 'cost', per: 100 },
  retail: { field: 'retailPrice', per: 100 },
  stock: { field: 'quantity', per: 1 },
  grams: { field: 'weightGrams', per: 1 },
  length: { field: 'lengthMm', per: 10 },
  width: { field: 'widthMm', per: 10 },
  height: { field: 'heightMm', per: 10 },
} as const;
type FormulaName = keyof typeof formulaNames;
const isName = (name: string): name is FormulaName => Object.hasOwn(formulaNames, name);

export type Formula = {
  /** What it uses. */
  names: readonly FormulaName[];
  /** @returns the result, or why there is none for this item */
  of(fieldAt: (field: string) => Json | undefined): number | { refused: string };
};

/** What is wrong, with the place in the text where it was noticed. */
export type FormulaFault = { fault: string; at: number };

const known = new Map<string, Formula | FormulaFault>();

/** Reads a formula such as `max(price, cost * 1.5)`. */
export function readFormula(text: string): Formula | FormulaFault {
  const before = known.get(text);
  if (before) return before;
  if (known.size > 200) known.clear();
  const made = parse(text);
  known.set(text, made);
  return made;
}

function parse(text: string): Formula | FormulaFault {
  const at = text.length;
  if (text.trim() === '') return { fault: 'Type a formula such as cost * 2.2 + 4', at: 0 };
  if (text.length > 500) return { fault: 'At most 500 characters', at: 500 };
  const odd = /["'[\]{};=\\|&]/.exec(text.replace(/[=!<>]=/g, '  '));
  if (odd) return { fault: `“${odd[0]}” has no place in a formula`, at: odd.index };
  let expression: Expression;
  try {
    expression = parser.parse(text);
  } catch (error) {
    return faultOf(text, error instanceof Error ? error.message : '');
  }
  const names = expression.variables();
  const strange = names.find((name) => !isName(name));
  if (strange !== undefined)
    return {
      fault: `“${strange}” is not known; there are ${Object.keys(formulaNames).join(', ')}`,
      at: Math.max(0, text.search(new RegExp(`\\b${strange}\\b`))),
    };
  const used = names.filter(isName);
  return {
    names: used,
    of(fieldAt) {
      const values: Record<string, number> = {};
      for (const name of used) {
        const { field, per } = formulaNames[name];
        const value = fieldAt(field);
        if (typeof value !== 'number') return { refused: `It has no ${name} to compute with` };
        values[name] = value / per;
      }
      let result: unknown;
      try {
        result = expression.evaluate(values);
      } catch {
        return { refused: 'The formula cannot be computed for it' };
      }
      if (typeof result !== 'number' || Number.isNaN(result)) return { refused: 'The formula gives no number' };
      return Number.isFinite(result) ? result : { refused: 'The formula divides by nothing' };
    },
  };

  function faultOf(source: string, message: string): FormulaFault {
    if (/EOF/.test(message)) return { fault: 'Something is missing at the end', at };
    const place = /\[(\d+):(\d+)\]/.exec(message);
    if (place) {
      const column = Number(place[2]) - 1;
      return { fault: `“${source.charAt(column)}” cannot be read there`, at: column };
    }
    const sign = /(?:T\w+: |")(.+?)"?$/.exec(message)?.[1] ?? '';
    const found = sign ? source.lastIndexOf(sign) : -1;
    return { fault: sign ? `“${sign}” cannot stand there` : 'This cannot be read', at: found < 0 ? at : found };
  }
}
