import { cookies } from 'next/headers';
import { NettingError } from '@/core/errors';
import { fromHere } from '@/http/from-here';
import { problemOf } from '@/http/problem';
import { requireRole } from '@/http/require-role';
import { actorOf } from '@/services/access/identify-actor';
import { startConnect } from '@/services/accounts/connect/start-connect';
import { connectCookie } from '../cookie';

export const dynamic = 'force-dynamic';

/** Sends the person to the marketplace's consent page; what was begun is remembered in a sealed cookie. */
export async function POST(request: Request): Promise<Response> {
  try {
    const who = requireRole(await actorOf(request.headers), 'owner');
    if (!fromHere(request)) throw new NettingError('not-allowed', 'This request did not come from Netting itself');
    const { url, pending } = startConnect(who.actor, new URL(request.url).searchParams.get('market') ?? '');
    const { name, ...where } = connectCookie();
    (await cookies()).set(name, pending, { httpOnly: true, sameSite: 'lax', maxAge: 600, ...where });
    return Response.json({ url });
  } catch (error) {
    return problemOf(error);
  }
}
