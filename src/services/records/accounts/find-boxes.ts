import type { Box } from '../../../core/measure';
import { database, type Executor } from '../../../db/client';
import { box } from '../../../db/schema';

export const findBoxes = (db: Executor = database()): Promise<Box[]> => db.select().from(box).orderBy(box.id);
