import { type Box, emptyBox, type ShipmentUnits } from './box';

/** What is wrong with a row of box contents; rows count from 1, the head is row 1. */
export type RowFault = { row: number; message: string };

const heads = {
  sku: ['number', 'stock number', 'sku', 'stock'],
  box: ['box', 'box number'],
  units: ['units', 'quantity', 'pieces', 'count'],
};

const columnOf = (head: readonly string[], names: readonly string[]): number =>
  head.findIndex((one) => names.includes(one.trim().toLowerCase()));

/**
 * Box contents from rows of a table: a head with stock number, box and units, then a row for each number in each box. What
 * was measured of a box that stays is kept.
 * @param before the boxes as they are
 * @returns the boxes, or every row that cannot be meant
 */
export function contentsFromRows(
  rows: readonly (readonly string[])[],
  planned: readonly ShipmentUnits[],
  before: readonly Box[],
): { boxes: Box[] } | { faults: RowFault[] } {
  const [head = [], ...lines] = rows;
  const at = {
    sku: columnOf(head, heads.sku),
    box: columnOf(head, heads.box),
    units: columnOf(head, heads.units),
  };
  const lacking = Object.entries(at).flatMap(([name, index]) => (index < 0 ? [name] : []));
  if (lacking.length)
    return {
      faults: [{ row: 1, message: 'The first row needs the heads “stock number”, “box” and “units”' }],
    };
  const known = new Map(planned.map((one) => [one.sku.toLowerCase(), one.sku]));
  const boxes = new Map<number, Box>();
  const faults: RowFault[] = [];
  for (const [index, line] of lines.entries()) {
    if (line.every((cell) => cell.trim() === '')) continue;
    const row = index + 2;
    const [said = '', boxText = '', unitText = ''] = [line[at.sku], line[at.box], line[at.units]].map((one) =>
      one?.trim(),
    );
    const sku = known.get(said.toLowerCase());
    const [box, units] = [Number(boxText), Number(unitText)];
    if (!sku) faults.push({ row, message: `“${said}” is not in this shipment` });
    else if (!Number.isInteger(box) || box < 1 || box > 200)
      faults.push({ row, message: `“${boxText}” is no number of a box` });
    else if (!Number.isInteger(units) || units < 0 || units > 100_000)
      faults.push({ row, message: `“${unitText}” is no number of units` });
    else if (units > 0) {
      const known = before.find((one) => one.number === box);
      const there = boxes.get(box) ?? { ...(known ?? emptyBox(box)), contents: {} };
      boxes.set(box, { ...there, contents: { ...there.contents, [sku]: (there.contents[sku] ?? 0) + units } });
    }
  }
  if (faults.length) return { faults };
  return { boxes: [...boxes.values()].sort((a, b) => a.number - b.number) };
}
