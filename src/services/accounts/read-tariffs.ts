import type { Tariff } from '../../core/price';
import { database } from '../../db/client';
import { tariff } from '../../db/schema';

export const readTariffs = async (): Promise<Tariff[]> =>
  (await database().select().from(tariff)).map((row) => row.doc);
