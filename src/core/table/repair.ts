import { isGtin } from '../barcode';
import type { Column } from './column';
import { isIdentity, isNumeric } from './column';

/** A cell as it may have been meant, with what was done to it; or why it cannot be read. */
export type Repaired = { text: string; said?: string } | { problem: string };

export type CellEvidence = {
  /** What the cell held when it was written out; undefined when that is not known. */
  exported?: string;
  /** What the record holds now. */
  now?: string;
  /** The sign before the fraction in this column's numbers. */
  decimal: '.' | ',';
  /** Whether this column's amounts have lost the sign before the fraction, seen in many of its cells. */
  hasLostFractions: boolean;
  /** Whether days stand before months in this column's dates. */
  dayFirst: boolean;
};

const scientific = /^(\d)(?:[.,](\d+))?E\+(\d{1,2})$/i;
const formula = /^=(?:\$?[A-Z]{1,3}\$?\d|[A-Z][A-Z.]*\(|\()/i;

/** Whole numbers from and up to which a rounded one was; both ends are whole. */
function roundedRange([, whole = '', fraction = '', power = '0']: RegExpExecArray): [bigint, bigint] {
  const digits = BigInt(whole + fraction);
  const zeros = Number(power) - fraction.length;
  if (zeros <= 0) return [digits, digits];
  const unit = 10n ** BigInt(zeros);
  return [digits * unit - unit / 2n, digits * unit + unit / 2n - 1n];
}

const within = (text: string, [from, to]: [bigint, bigint]) =>
  /^\d+$/.test(text) && BigInt(text) >= from && BigInt(text) <= to;

const mostTried = 2_000n;

/** The only barcode in the range whose check digit fits; null when there is none, or more than one. */
function onlyBarcode([from, to]: [bigint, bigint]): string | null {
  if (to - from > mostTried) return null;
  const fits: string[] = [];
  for (let one = from; one <= to; one++) if (isGtin(String(one))) fits.push(String(one));
  return fits.length === 1 ? (fits[0] ?? null) : null;
}

const rounded = 'The spreadsheet had rounded this number; it is as it was';

/** Numbers that name a thing: rounded, without their leading zeros, or with a fraction that they never had. */
function repairIdentity(text: string, isBarcodeColumn: boolean, { exported, now }: CellEvidence): Repaired {
  const known = [exported, now].flatMap((one) => (one ? [one] : []));
  const hit = scientific.exec(text);
  if (hit) {
    const range = roundedRange(hit);
    const fits = known.find((one) => within(one, range)) ?? (isBarcodeColumn ? onlyBarcode(range) : null);
    if (fits !== null) return { text: fits, said: rounded };
    return { problem: `The spreadsheet has rounded this number to ${text}; write it out as text` };
  }
  const whole = text.replace(/^(\d+)[.,]0+$/, '$1');
  const zeros = known.find((one) => one !== whole && /^0\d/.test(one) && one.replace(/^0+/, '') === whole);
  if (zeros !== undefined) return { text: zeros, said: 'Its leading zeros had been lost; they are back' };
  if (whole !== text && known.includes(whole)) return { text: whole, said: 'Its “.0” was made by the spreadsheet' };
  return { text };
}

/** A day number of spreadsheets, counted from 1899-12-30, as a date. */
const fromSerial = (days: number): string =>
  new Date(Date.UTC(1899, 11, 30) + days * 86_400_000).toISOString().slice(0, 10);

const isDay = (year: number, month: number, day: number): boolean => {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
};

function repairDate(text: string, dayFirst: boolean): Repaired {
  if (/^\d{5}([.,]\d+)?$/.test(text)) {
    const days = Number(text.replace(',', '.'));
    return { text: fromSerial(Math.floor(days)), said: 'The spreadsheet had made a number of this date' };
  }
  const iso = /^(\d{4}-\d{2}-\d{2})[T ][\d:.]+Z?$/.exec(text);
  if (iso?.[1]) return { text: iso[1] };
  const hit = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})$/.exec(text);
  if (!hit) return { text };
  const [first, second, year] = [Number(hit[1]), Number(hit[3]), Number(hit[4])];
  const [day, month] = dayFirst ? [first, second] : [second, first];
  if (!isDay(year, month, day)) return { text };
  const two = (one: number) => String(one).padStart(2, '0');
  return { text: `${year}-${two(month)}-${two(day)}`, said: `Read as ${day}.${month}.${year}` };
}

/** Whether an amount was read with the sign before its fraction taken for a mark of thousands: 12.90 as 1290. */
export const lostFraction = (text: string, exported: string | undefined): boolean =>
  exported !== undefined && /^\d+\.\d+$/.test(exported) && exported.replace('.', '').replace(/^0+/, '') === text;

/** Numbers with marks for thousands, and with the sign before the fraction that this column uses. */
function repairNumber(text: string, { decimal, exported, hasLostFractions }: CellEvidence): Repaired {
  const clean = text.replace(/[\s'’\u00a0\u202f]/g, '');
  if (hasLostFractions && exported !== undefined && lostFraction(clean, exported))
    return { text: exported, said: 'A sign before the fraction had been taken for a mark of thousands' };
  const hasMarks = (decimal === ',' ? /^-?\d{1,3}(\.\d{3})+(,\d+)?$/ : /^-?\d{1,3}(,\d{3})+(\.\d+)?$/).test(clean);
  const whole = hasMarks ? clean.replaceAll(decimal === ',' ? '.' : ',', '') : clean;
  return /^-?\d+([.,]\d+)?$/.test(whole) ? { text: whole.replace(',', '.') } : { text };
}

/**
 * What a spreadsheet did to a cell is undone where there is evidence of what stood there: what was written out, what the
 * record holds now, or a check digit that only one number fits. A cell that nothing was done to is left as it is.
 */
export function repairCell(column: Column, text: string, evidence: CellEvidence): Repaired {
  if (text === '' || text === evidence.exported || text === evidence.now) return { text };
  const { field } = column;
  if (formula.test(text)) return { problem: 'A formula stands here, not its value' };
  if (isIdentity(column)) return repairIdentity(text.trim(), field?.id === 'barcode', evidence);
  if (field?.kind.is === 'date') return repairDate(text.trim(), evidence.dayFirst);
  if (isNumeric(column)) return repairNumber(text, evidence);
  return { text };
}
