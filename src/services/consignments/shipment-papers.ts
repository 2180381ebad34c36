import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { unitsIn } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import {
  type BoxWords,
  boxLabelSize,
  contentsCode,
  drawBoxLabel,
  drawContentsLabel,
  drawPackingList,
  listPage,
  type Mark,
} from '../../core/label';
import { database } from '../../db/client';
import { item, type ShipmentRow } from '../../db/schema';
import { type DrawnPage, writePdf } from '../../files/pdf';
import { symbolsOf } from '../../files/symbol';
import { lineWidth } from '../../photos/letters';
import { drawnAt } from '../labels/draw-labels';
import { boxLabelOf } from './box-name';
import { loadConsignment, loadShipment } from './load-consignment';

export const papersSchema = z.object({ of: z.enum(['boxes', 'contents', 'list']) }).strict();
type Paper = z.output<typeof papersSchema>['of'];

const names: Record<Paper, string> = { boxes: 'Box labels', contents: 'Contents labels', list: 'Packing list' };

/** Labels of the boxes of a shipment, of what is in them, or its packing list, as pages in millimetres. */
export async function shipmentPapers(id: number, { of }: z.output<typeof papersSchema>) {
  const db = database();
  const row = await loadShipment(db, id);
  if (row.boxes.every((box) => unitsIn(box) === 0))
    throw new NettingError('invalid', 'Nothing is packed yet', { field: 'boxes' });
  const whole = await loadConsignment(db, row.consignmentId);
  const things = await db
    .select({ sku: item.sku, title: item.title })
    .from(item)
    .where(inArray(item.id, [0, ...row.units.map((one) => one.item)]));
  const titles = new Map(things.map((one) => [one.sku, one.title]));
  const boxes = wordsOf(row, titles);
  const size = of === 'list' ? listPage : boxLabelSize;
  const marks =
    of === 'list'
      ? drawPackingList(
          {
            title: `${whole.name} · ${row.remoteId}`,
            facts: [
              row.address.join(', '),
              `${row.boxes.length} ${row.boxes.length === 1 ? 'box' : 'boxes'}${row.carrier ? `, ${row.carrier}` : ''}`,
            ],
            rows: boxes.flatMap((box) => box.contents.map((one) => ({ box: String(box.number), ...one }))),
          },
          lineWidth,
        )
      : boxes.map((box) => labelOf(box, of));
  const pages: DrawnPage[] = marks.map((some) => ({ ...size, drawn: drawnAt(some, 0, 0) }));
  const title = `${names[of]} ${row.remoteId}`;
  return { pages, title, pdf: () => writePdf(pages, title) };
}

function labelOf(box: BoxWords, of: 'boxes' | 'contents'): Mark[] {
  const marks =
    of === 'boxes'
      ? drawBoxLabel(
          box,
          {
            code: symbolsOf(box.code).linear(),
            tracking: box.tracking ? symbolsOf(box.tracking).linear() : null,
          },
          lineWidth,
        )
      : drawContentsLabel(box, symbolsOf(contentsCode(box)).square(), lineWidth);
  if (!marks)
    throw new NettingError('invalid', `The label of box ${box.number} holds more than can be read from it`, {
      field: 'boxes',
      fix: of === 'boxes' ? 'Give a shorter tracking number' : 'Put fewer different numbers into one box',
    });
  return marks;
}

function wordsOf(row: ShipmentRow, titles: ReadonlyMap<string, string>): BoxWords[] {
  return row.boxes.map((box, index): BoxWords => {
    const sides = box.millimetres?.map((side) => side / 10).join(' × ');
    return {
      code: row.boxCodes[index] ?? boxLabelOf(row.id, box.number),
      shipment: row.remoteId,
      number: box.number,
      count: row.boxes.length,
      address: row.address.length ? row.address : [row.warehouseName],
      carrier: row.carrier,
      tracking: row.tracking[index] ?? '',
      measures: [box.grams === null ? '' : `${box.grams / 1_000} kg`, sides ? `${sides} cm` : '']
        .filter(Boolean)
        .join(' · '),
      contents: Object.entries(box.contents).map(([sku, units]) => ({ sku, units, title: titles.get(sku) ?? '' })),
    };
  });
}
