import { and, eq, inArray } from 'drizzle-orm';
import { nearCodes, spellingsOf } from '../../core/barcode';
import type { Executor } from '../../db/client';
import { item, mapping } from '../../db/schema';

const most = 5;

/** Codes that are one slip away from each of these broken ones and that are known: in stock, or from a catalogue that was asked before. */
export async function nearKnown(db: Executor, scanned: readonly string[]): Promise<Map<string, string[]>> {
  const spelled = new Map<string, { code: string; of: string }[]>();
  for (const of of scanned) {
    const text = of.replace(/[\s-]/g, '').toUpperCase();
    if (!/^\d{7,13}[\dX]$/.test(text)) continue;
    for (const code of nearCodes(text))
      for (const one of spellingsOf(code)) spelled.set(one, [...(spelled.get(one) ?? []), { code, of }]);
  }
  const near = new Map<string, string[]>();
  if (spelled.size === 0) return near;
  const all = [...spelled.keys()];
  const sources = all.map((one) => `code:${one}`);
  const [there, learned] = await Promise.all([
    db
      .selectDistinct({ code: item.barcode })
      .from(item)
      .where(and(inArray(item.barcode, all), eq(item.standing, 'active'))),
    db
      .selectDistinct({ source: mapping.source })
      .from(mapping)
      .where(and(eq(mapping.kind, 'product'), inArray(mapping.source, sources))),
  ]);
  const known = [...there.map((row) => row.code), ...learned.map((row) => row.source.slice('code:'.length))];
  for (const { code, of } of known.flatMap((one) => spelled.get(one) ?? []))
    near.set(of, [...new Set([...(near.get(of) ?? []), code])].slice(0, most));
  return near;
}
