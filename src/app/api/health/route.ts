import { sql } from 'drizzle-orm';
import { database } from '@/db/client';

export const dynamic = 'force-dynamic';

export async function GET(): Promise<Response> {
  try {
    await database().execute(sql`select 1`);
    return Response.json({ ok: true });
  } catch {
    return Response.json({ ok: false, reason: 'The database does not answer' }, { status: 503 });
  }
}
