import { join } from 'node:path';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import { closeDatabase, database } from './client';
import { fillCombinationKeys } from './fill/combination-keys';

await migrate(database(), { migrationsFolder: join(import.meta.dirname, 'migrations') });
await fillCombinationKeys();
await closeDatabase();
