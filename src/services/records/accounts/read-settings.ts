import { inArray } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { conditionIds, lookUpSchema, readSkuPattern, rowPlanSchema, type SkuPattern } from '../../../core/item';
import { labelSizeSchema } from '../../../core/label/size';
import { noAllowance, packagingAllowanceSchema } from '../../../core/measure/parcel';
import { packingSchema } from '../../../core/price/packing';
import { termSchema } from '../../../core/wording';
import { database, type Executor } from '../../../db/client';
import { setting } from '../../../db/schema';

const firstPattern = 'GH-{seq}';

export const shopSettingsSchema = z
  .object({
    skuPattern: z.string().trim().min(1).max(80),
    /** How long changes of items are kept, for history and undo. */
    historyDays: z.number().int().min(30).max(3_650),
    /** How long it is kept what exactly was sent to marketplaces and what they told. */
    requestDays: z.number().int().min(7).max(3_650),
    /** What packing adds to the weight, on every account that has no allowance of its own. */
    packaging: packagingAllowanceSchema,
    /** Box, filling and tape of one parcel, in minor units of the shop's own currency. */
    packingCost: packingSchema.shape.perParcel,
    packingPerKilo: packingSchema.shape.perKilo,
    packingMinutes: packingSchema.shape.minutes,
    hourlyRate: packingSchema.shape.hourly,
    /** So many photos are wanted on a listing, as far as the marketplace takes so many. */
    photosWanted: z.number().int().min(1).max(30),
    /** So many days without a sale, and so many before it is past its best, somebody should look at a thing. */
    unsoldDays: z.number().int().min(7).max(3_650),
    bestBeforeDays: z.number().int().min(1).max(730),
    /** Ready-made sentences for condition notes, by grade, in the order in which they read. */
    conditionSnippets: z.partialRecord(
      z.enum(conditionIds),
      z
        .array(z.string().trim().min(1).max(200, 'At most 200 characters a sentence'))
        .max(30, 'At most 30 sentences a grade'),
    ),
    /** One's own terms by language, as it is called on accounts. */
    glossaries: z.record(
      z.string().trim().min(1).max(20),
      z.array(termSchema).max(2_000, 'At most 2,000 terms a language'),
    ),
    /** Addresses somewhere else that are opened with an item's words. */
    lookUps: z.array(lookUpSchema).max(12, 'At most 12 look-ups'),
    /** Sizes of labels of one's own, by an id. */
    labelSizes: z.record(z.string().regex(/^own-[a-z0-9]{1,20}$/), labelSizeSchema),
    /** Which rows of the sheet are shown and in which order, by own category. */
    sheetRows: z.record(z.string().max(200), rowPlanSchema),
  })
  .strict();
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** Some of the settings, to be kept. */
export const someSettingsSchema = shopSettingsSchema
  .omit({ sheetRows: true })
  .partial()
  .superRefine(({ skuPattern }, context) => {
    if (skuPattern === undefined) return;
    const read = readSkuPattern(skuPattern);
    if ('problem' in read) context.addIssue({ code: 'custom', path: ['skuPattern'], message: read.problem });
  });

const firstSettings: ShopSettings = {
  skuPattern: firstPattern,
  historyDays: 730,
  requestDays: 60,
  packaging: noAllowance,
  packingCost: 60,
  packingPerKilo: 0,
  packingMinutes: 0,
  hourlyRate: 0,
  photosWanted: 3,
  unsoldDays: 180,
  bestBeforeDays: 60,
  conditionSnippets: {},
  glossaries: {},
  lookUps: [],
  labelSizes: {},
  sheetRows: {},
};

export async function readSettings(db: Executor = database()): Promise<ShopSettings> {
  const rows = await db
    .select()
    .from(setting)
    .where(inArray(setting.name, Object.keys(firstSettings)));
  const kept = shopSettingsSchema.partial().safeParse(Object.fromEntries(rows.map((row) => [row.name, row.value])));
  return { ...firstSettings, ...kept.data };
}

/** The pattern of stock numbers, read; the one that Netting starts with when the kept one cannot be read any more. */
export async function skuParts(db: Executor): Promise<SkuPattern> {
  const { skuPattern } = await readSettings(db);
  const read = readSkuPattern(skuPattern);
  if ('parts' in read) return read.parts;
  const first = readSkuPattern(firstPattern);
  if ('parts' in first) return first.parts;
  throw new NettingError('invalid', read.problem, { field: 'skuPattern' });
}
