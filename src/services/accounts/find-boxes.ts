import type { Box } from '../../core/measure';
import { database } from '../../db/client';
import { box } from '../../db/schema';

export const findBoxes = (): Promise<Box[]> => database().select().from(box).orderBy(box.id);
