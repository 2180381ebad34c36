import { cookies } from 'next/headers';
import { config } from '@/config';
import { NettingError } from '@/core/errors';
import { fromHere } from '@/http/handle';
import { problemOf } from '@/http/problem';
import { requireRole } from '@/http/require-role';
import { actorOf } from '@/services/access/identify-actor';
import { startConnect } from '@/services/accounts/connect/start-connect';
export const dynamic = 'force-dynamic';

/** Sends the person to the marketplace's consent page; what was begun is remembered in a sealed cookie. */
export async function POST(request: Request): Promise<Response> {
  try {
    const who = requireRole(await actorOf(request.headers), 'owner');
    if (!fromHere(request)) throw new NettingError('not-allowed', 'This request did not come from Netting itself');
    const { url, pending } = startConnect(who.actor, new URL(request.url).searchParams.get('market') ?? '');
    (await cookies()).set('netting.connect', pending, {
      httpOnly: true,
      sameSite: 'lax',
      path: '/api/connect',
      maxAge: 600,
      secure: config.baseUrl.startsWith('https:'),
    });
    return Response.json({ url });
  } catch (error) {
    return problemOf(error);
  }
}
