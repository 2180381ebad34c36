import { and, desc, inArray, lt, ne } from 'drizzle-orm';
import { z } from 'zod';
import { missingOf, unitsIn } from '../../core/consignment';
import { database } from '../../db/client';
import { account, consignment, consignmentStates, shipment } from '../../db/schema';
import { connectorOf } from '../../markets';

export const findConsignmentsSchema = z
  .object({
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(100).default(50),
  })
  .strict();

export const consignmentRowSchema = z.object({
  id: z.number(),
  name: z.string(),
  accountName: z.string(),
  state: z.enum(consignmentStates),
  units: z.number(),
  packed: z.number(),
  warehouses: z.array(z.string()),
  missing: z.number(),
  byName: z.string(),
  createdAt: z.string(),
});

/** Consignments, the newest first. */
export async function findConsignments({ before, limit }: z.output<typeof findConsignmentsSchema>): Promise<{
  consignments: z.infer<typeof consignmentRowSchema>[];
  next: number | null;
}> {
  const db = database();
  const rows = await db
    .select()
    .from(consignment)
    .where(before ? lt(consignment.id, before) : undefined)
    .orderBy(desc(consignment.id))
    .limit(limit);
  const shipments = await db
    .select()
    .from(shipment)
    .where(and(inArray(shipment.consignmentId, [0, ...rows.map((one) => one.id)]), ne(shipment.state, 'off')));
  const names = new Map(
    (await db.select({ id: account.id, name: account.name }).from(account)).map((one) => [one.id, one.name]),
  );
  return {
    consignments: rows.map(({ id, name, accountId, state, units, byName, createdAt }) => {
      const own = shipments.filter((one) => one.consignmentId === id);
      const planned = own.length
        ? own.flatMap((one) => one.units).reduce((sum, one) => sum + one.quantity, 0)
        : units.reduce((sum, one) => sum + one.quantity, 0);
      return {
        id,
        name,
        accountName: names.get(accountId) ?? '',
        state,
        units: planned,
        packed: own.flatMap((one) => one.boxes).reduce((sum, box) => sum + unitsIn(box), 0),
        warehouses: own.map((one) => one.warehouseName),
        missing: own
          .filter((one) => one.state === 'received')
          .flatMap(missingOf)
          .reduce((sum, one) => sum + one.missing, 0),
        byName,
        createdAt: createdAt.toISOString(),
      };
    }),
    next: rows.length < limit ? null : (rows.at(-1)?.id ?? null),
  };
}

/** Accounts of marketplaces that have warehouses. */
export async function inboundAccounts(): Promise<{ id: number; name: string; market: string }[]> {
  const rows = await database().select({ id: account.id, name: account.name, market: account.market }).from(account);
  return rows.filter((one) => connectorOf(one.market).inbound);
}
