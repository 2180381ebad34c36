import type { Field } from '../field/field';
import type { Variation } from '../item/variations';
import type { Json } from '../json';
import { combinationFieldIn, combinationValue, type TableRecord, valueIn } from './cells';
import type { Column } from './column';
import { readPhotoRefs } from './photo-refs';
import { repairCell } from './repair';
import { plainShape, type Shape } from './shape';
import { threeWay, unitsAfter } from './three-way';

export type RowOptions = {
  /** What a number of units means: what there is, or so many more. */
  units: 'set' | 'add';
  /** What an empty cell means where it is not known what was written out: nothing, or that the field is emptied. */
  empty: 'keep' | 'clear';
};

/** One cell that says something else than the record. */
export type CellPlan = {
  column: string;
  exported?: string;
  now: string;
  file: string;
  /** The value that it was compared with. */
  from: Json;
  to: Json;
  /** So many units more, in place of the number that results. */
  more?: number;
  isConflict: boolean;
  /** What was done to it before it could be read. */
  said?: string;
};

export type RowPlan =
  /** `kept`: cells that were changed here since it was written out, and not in the file. */
  | { kind: 'same'; kept: number }
  | { kind: 'change' | 'conflict' | 'new'; cells: CellPlan[] }
  | { kind: 'refused'; why: string; column: string | null };

export type RowInput = {
  /** What each cell is tied to; null for what is left out. */
  columns: readonly (Column | null)[];
  cells: readonly string[];
  /** What it is a row of; null for a new item. */
  record: TableRecord | null;
  combination: Variation | null;
  /** What the cells held when they were written out, by column id. */
  exported?: Readonly<Record<string, string>>;
  shapes?: ReadonlyMap<string, Shape>;
  options: RowOptions;
};

const isNothing = (value: Json, { empty, same }: Field) => same(value, empty);

type Judged = CellPlan | 'same' | 'kept' | { why: string };

function judge(column: Column, field: Field, now: Json | undefined, text: string, input: RowInput): Judged {
  const { currency } = column;
  const context = { currency };
  const exported = input.exported?.[column.id];
  const shown = now === undefined ? '' : field.show(now, context);
  const shape = input.shapes?.get(column.id) ?? plainShape;
  if (text.trim() === '' && exported === undefined && input.options.empty === 'keep') return 'same';
  if (field.kind.is === 'photos' && text !== exported && text !== shown)
    return judgePhotos(column, text, shown, now, exported);
  const repaired = repairCell(column, text, { exported, now: shown, ...shape });
  if ('problem' in repaired) return { why: repaired.problem };
  const read = field.read(repaired.text, context);
  if ('problem' in read) return { why: read.problem };
  const { said } = repaired;
  const plan = (to: Json, isConflict: boolean, more?: number): CellPlan => ({
    column: column.id,
    ...(exported === undefined ? {} : { exported }),
    now: shown,
    file: text,
    from: now ?? field.empty,
    to,
    ...(more === undefined ? {} : { more }),
    isConflict,
    ...(said ? { said } : {}),
  });
  if (now === undefined) return isNothing(read.value, field) ? 'same' : plan(read.value, false);
  if (field.traits.ledger && input.options.units === 'add') {
    const more = Number(read.value) || 0;
    return more === 0 ? 'same' : plan(unitsAfter(Number(now) || 0, more, 'add'), false, more);
  }
  const was = exported === undefined ? undefined : field.read(exported, context);
  const verdict = threeWay(field, was && 'value' in was ? was.value : undefined, now, read.value);
  if (verdict.kind === 'same' || verdict.kind === 'kept') return verdict.kind;
  const fault = field.schema.safeParse(verdict.to);
  if (!fault.success) return { why: fault.error.issues[0]?.message ?? 'This cannot stand here' };
  return plan(verdict.to, verdict.kind === 'conflict');
}

/** Photos by their names or addresses: what they are is found out when they are taken. */
function judgePhotos(
  column: Column,
  text: string,
  now: string,
  from: Json | undefined,
  exported: string | undefined,
): Judged {
  const read = readPhotoRefs(text);
  if ('problem' in read) return { why: read.problem };
  const isConflict = exported !== undefined && exported !== now;
  return {
    column: column.id,
    ...(exported === undefined ? {} : { exported }),
    now,
    file: text,
    from: from ?? [],
    to: read.refs,
    isConflict,
  };
}

/** The field that a cell is of, and its value now; null for cells that say nothing of this row. */
function placed(column: Column, { record, combination }: RowInput): { field: Field; now: Json | undefined } | null {
  if (combination) {
    const field = combinationFieldIn(column);
    return field ? { field, now: combinationValue(combination, field) } : null;
  }
  const { field } = column;
  if (!field) return null;
  return { field, now: record ? valueIn(record, column) : undefined };
}

/**
 * What a row of a file comes to: the same as the record, changes, changes of both sides, a new item, or why it is refused.
 * A row with one cell that cannot be read is refused whole.
 */
export function planRow(input: RowInput): RowPlan {
  const cells: CellPlan[] = [];
  let kept = 0;
  for (const [at, column] of input.columns.entries()) {
    const there = column && placed(column, input);
    if (!column || !there) continue;
    const judged = judge(column, there.field, there.now, input.cells[at] ?? '', input);
    if (judged === 'kept') kept++;
    else if (judged !== 'same') {
      if ('why' in judged) return { kind: 'refused', why: judged.why, column: column.id };
      cells.push(judged);
    }
  }
  if (input.record === null)
    return cells.length
      ? { kind: 'new', cells }
      : { kind: 'refused', why: 'It says nothing of a new item', column: null };
  if (cells.length === 0) return { kind: 'same', kept };
  return { kind: cells.some((one) => one.isConflict) ? 'conflict' : 'change', cells };
}
