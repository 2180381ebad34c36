import { NettingError } from '@/core/errors';
import { fromHere } from '@/http/from-here';
import { problemOf } from '@/http/problem';
import { readForm } from '@/http/read-limited';
import { join, joinSchema } from '@/services/access/join';
export const dynamic = 'force-dynamic';

/** Whoever has a link that was not used yet joins the shop by it. */
export async function POST(request: Request): Promise<Response> {
  try {
    if (!fromHere(request)) throw new NettingError('not-allowed', 'This request did not come from Netting itself');
    await join(joinSchema.parse(await readForm(request)));
    return Response.json({ ok: true }, { status: 201 });
  } catch (error) {
    return problemOf(error);
  }
}
