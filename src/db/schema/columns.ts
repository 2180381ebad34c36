import { bigint, customType, datetime } from 'drizzle-orm/mysql-core';
import { type Standing, standings } from '../../core/item/standing';

export const id = () => bigint('id', { mode: 'number', unsigned: true }).autoincrement().primaryKey();
export const reference = (name: string) => bigint(name, { mode: 'number', unsigned: true });
/** Money in minor units, as much as a price may be anywhere. */
export const minor = (name: string) => bigint(name, { mode: 'number' });
/** Times are UTC with milliseconds. */
export const moment = (name: string) => datetime(name, { mode: 'date', fsp: 3 });

/** JSON, typed. The driver hands MariaDB's JSON columns out parsed: a JSON string arrives as a plain string. */
export const document = <T>(name: string) =>
  customType<{ data: T; driverData: unknown }>({
    dataType: () => 'json',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (value) => value as T, // parsed by the driver already; the column holds only what toDriver wrote
  })(name);

/** Whether a record is worked with: 0 where it is, so that every list begins with the same small number. */
export const standing = (name: string) =>
  customType<{ data: Standing; driverData: number }>({
    dataType: () => 'boolean',
    toDriver: (value) => standings.indexOf(value),
    fromDriver: (value) => standings[Number(value)] ?? 'active',
  })(name);
