import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { unitsIn } from '../../core/consignment';
import { NettingError } from '../../core/errors';
import type { BoxWords } from '../../core/label';
import { database } from '../../db/client';
import { item, type ShipmentRow } from '../../db/schema';
import { writePdf } from '../../files/pdf';
import { boxLabelOf } from './box-name';
import { drawPapers, papers } from './draw-papers';
import { loadConsignment, loadShipment } from './load-consignment';

export const papersSchema = z.object({ of: z.enum(papers) }).strict();

const names: Record<(typeof papers)[number], string> = {
  boxes: 'Box labels',
  contents: 'Contents labels',
  list: 'Packing list',
};

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
  const pages = drawPapers(of, boxes, {
    title: `${whole.name} · ${row.remoteId}`,
    facts: [
      row.address.join(', '),
      `${row.boxes.length} ${row.boxes.length === 1 ? 'box' : 'boxes'}${row.carrier ? `, ${row.carrier}` : ''}`,
    ],
  });
  const title = `${names[of]} ${row.remoteId}`;
  return { pages, title, pdf: () => writePdf(pages, title) };
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
