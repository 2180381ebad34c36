import { NettingError } from '@/core/errors';
import { fromHere } from '@/http/from-here';
import { problemOf } from '@/http/problem';
import { readForm } from '@/http/read-limited';
import { personSchema } from '@/services/access/add-person';
import { setupOwner } from '@/services/access/set-up-owner';
export const dynamic = 'force-dynamic';

/** The first visitor makes the owner's account. */
export async function POST(request: Request): Promise<Response> {
  try {
    if (!fromHere(request)) throw new NettingError('not-allowed', 'This request did not come from Netting itself');
    const body = personSchema.parse(await readForm(request));
    await setupOwner(body);
    return Response.json({ ok: true }, { status: 201 });
  } catch (error) {
    return problemOf(error);
  }
}
