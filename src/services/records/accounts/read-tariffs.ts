import type { Tariff } from '../../../core/price';
import { database, type Executor } from '../../../db/client';
import { tariff } from '../../../db/schema';

export const readTariffs = async (db: Executor = database()): Promise<Tariff[]> =>
  (await db.select().from(tariff)).map((row) => row.doc);
