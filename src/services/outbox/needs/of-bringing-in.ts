import { desc, eq } from 'drizzle-orm';
import { database } from '../../../db/client';
import { gathering } from '../../../db/schema';
import { type Found, page } from './need';

/** Bringings in that stand still until somebody says which listings are one thing; the newest is where one begins. */
export async function bringingInThatNeeds(): Promise<Found[]> {
  const asking = await database()
    .select({ id: gathering.id })
    .from(gathering)
    .where(eq(gathering.state, 'asking'))
    .orderBy(desc(gathering.id));
  const [newest] = asking;
  return [
    page(
      'bringing-in',
      'What is brought in waits for your answer: is it one thing?',
      'Look at the pairs; what is certain is in already',
      newest && asking.length === 1 ? `/bring-in/${newest.id}` : '/bring-in',
      { count: asking.length },
    ),
  ];
}
