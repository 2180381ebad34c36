import { and, eq, inArray } from 'drizzle-orm';
import { nearCodes, spellingsOf } from '../../core/barcode';
import type { Executor } from '../../db/client';
import { item, mapping } from '../../db/schema';

const most = 5;

/** Codes that are one slip away from a broken one and that are known: in stock, or from a catalogue that was asked before. */
export async function nearKnown(db: Executor, scanned: string): Promise<string[]> {
  const text = scanned.replace(/[\s-]/g, '').toUpperCase();
  if (!/^\d{7,13}[\dX]$/.test(text)) return [];
  const near = nearCodes(text);
  const spelled = new Map(near.flatMap((code) => spellingsOf(code).map((one): [string, string] => [one, code])));
  if (spelled.size === 0) return [];
  const all = [...spelled.keys()];
  const [there, learned] = await Promise.all([
    db
      .selectDistinct({ code: item.barcode })
      .from(item)
      .where(and(inArray(item.barcode, all), eq(item.standing, 'active'))),
    db
      .selectDistinct({ source: mapping.source })
      .from(mapping)
      .where(
        and(
          eq(mapping.kind, 'product'),
          inArray(
            mapping.source,
            all.map((one) => `code:${one}`),
          ),
        ),
      ),
  ]);
  const known = [...there.map((row) => row.code), ...learned.map((row) => row.source.slice('code:'.length))];
  return [...new Set(known.flatMap((one) => spelled.get(one) ?? []))].slice(0, most);
}
