import { readScans } from '@/core/barcode/read-scan';
import { type Command, readCommand } from '@/core/batch/command';
import { type ConditionGrade, conditionGrades } from '@/core/item/condition';
import { homeCurrency, parseAmount } from '@/core/measure/money';
import type { LineView } from '@/services/intake/line-view';

/** What was said at the scan field. */
export type Said =
  | { is: 'command'; command: Command }
  | { is: 'grade'; grade: ConditionGrade }
  | { is: 'price'; price: number }
  | { is: 'entry'; entry: string }
  | { is: 'scan'; text: string }
  /** The same again within a moment: it is asked whether the piece is there twice. */
  | { is: 'doubt'; text: string }
  | { is: 'nothing' };

/** Twice the same within so many milliseconds may be one piece that was read twice. */
const doubtMs = 1_000;

export type Before = { text: string; at: number } | null;

const isCode = (text: string) => readScans(text).some((one) => one.is === 'code');

/**
 * What a text means: a command label, an answer to what is asked of the last piece, a sentence by its number, or a scan.
 * @param last the last piece, when something is asked of it
 */
export function interpret(text: string, at: number, last: LineView | null, before: Before): Said {
  const said = text.trim();
  if (said === '') return { is: 'nothing' };
  const command = readCommand(said);
  if (command) return { is: 'command', command };
  const asked = last?.needs[0]?.what;
  const number = /^\d{1,2}$/.test(said) ? Number(said) : null;
  if (asked === 'grade' && number !== null) {
    const grade = conditionGrades[number - 1];
    return grade ? { is: 'grade', grade: grade.id } : { is: 'nothing' };
  }
  if (asked === 'entry' && number !== null) {
    const entry = last?.found[number - 1];
    return entry ? { is: 'entry', entry: entry.entry } : { is: 'nothing' };
  }
  if (asked === 'price' && said.length <= 8 && !isCode(said)) {
    const price = parseAmount(said, homeCurrency);
    if (price !== null && price >= 0) return { is: 'price', price };
  }
  if (number !== null) return number ? { is: 'command', command: { do: 'snippet', number } } : { is: 'nothing' };
  if (before && before.text === said && at - before.at < doubtMs) return { is: 'doubt', text: said };
  return { is: 'scan', text };
}
