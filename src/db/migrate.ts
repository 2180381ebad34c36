import { join } from 'node:path';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import { closeDatabase, database } from './client';

await migrate(database(), { migrationsFolder: join(import.meta.dirname, 'migrations') });
await closeDatabase();
