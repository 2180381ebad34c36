import { and, eq, inArray } from 'drizzle-orm';
import { type Scan, spellingsOf } from '../../core/barcode';
import { skuPattern } from '../../core/item';
import type { Tx } from '../../db/client';
import { item, mapping, usedSku } from '../../db/schema';
import { combinationsWith } from './known-piece';

type Read = { text: string; scan: Scan };

/** What the shop knows of some scans before the first of them is recorded: asked once for all of them. */
export type KnownBefore = {
  /** A stock number that was given: then it is looked at whose it is. */
  isNumber(text: string): boolean;
  /** Something in stock has this code: then it is looked at what. */
  isInStock(code: string): boolean;
  /** What a catalogue called it when it was found there before. */
  nameOf(code: string): string | null;
  /** Something was recorded meanwhile: from now on it is known. */
  recorded(sku: string, code: string): void;
};

export async function knownBefore(tx: Tx, scans: readonly Read[]): Promise<KnownBefore> {
  const texts = scans.map((one) => one.text.trim()).filter((text) => skuPattern.test(text));
  const spellings = scans.flatMap(({ scan }) => (scan.is === 'code' ? spellingsOf(scan.code) : []));
  const numbers = new Set<string>();
  const codes = new Set<string>();
  const names = new Map<string, string>();
  if (texts.length)
    for (const { sku } of await tx.select({ sku: usedSku.sku }).from(usedSku).where(inArray(usedSku.sku, texts)))
      numbers.add(sku.toLowerCase());
  if (spellings.length) {
    const whole = await tx
      .selectDistinct({ barcode: item.barcode })
      .from(item)
      .where(and(inArray(item.barcode, spellings), eq(item.standing, 'active'), eq(item.isVaried, false)));
    const varied = await combinationsWith(tx, 'barcode', spellings);
    for (const { said } of [...whole.map((row) => ({ said: row.barcode })), ...varied]) codes.add(said);
    const learned = await tx
      .select({ source: mapping.source, detail: mapping.detail })
      .from(mapping)
      .where(
        and(
          eq(mapping.kind, 'product'),
          inArray(
            mapping.source,
            spellings.map((one) => `code:${one}`),
          ),
        ),
      );
    for (const { source, detail } of learned) if (detail) names.set(source, detail.name);
  }
  return {
    isNumber: (text) => numbers.has(text.toLowerCase()),
    isInStock: (code) => spellingsOf(code).some((one) => codes.has(one)),
    nameOf: (code) => spellingsOf(code).flatMap((one) => names.get(`code:${one}`) ?? [])[0] ?? null,
    recorded(sku, code) {
      numbers.add(sku.toLowerCase());
      for (const one of code ? spellingsOf(code) : []) codes.add(one);
    },
  };
}
