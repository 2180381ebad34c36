import { cookies } from 'next/headers';
import { config } from '@/config';
import { NettingError } from '@/core/errors';
import { requireRole } from '@/http/require-role';
import { actorOf } from '@/services/access/identify-actor';
import { finishConnect } from '@/services/accounts/connect/finish-connect';
import { connectCookie } from '../cookie';

export const dynamic = 'force-dynamic';

/** Where the marketplace sends the person back to. */
export async function GET(request: Request): Promise<Response> {
  const jar = await cookies();
  const { name, ...where } = connectCookie();
  const pending = jar.get(name)?.value ?? '';
  jar.delete({ name, ...where });
  const who = await actorOf(request.headers);
  if (!who) return Response.redirect(`${config.baseUrl}/sign-in`, 303);
  try {
    const { accountId, isFirst } = await finishConnect(
      requireRole(who, 'owner').actor,
      pending,
      Object.fromEntries(new URL(request.url).searchParams),
    );
    // Whoever begins has most of it there already.
    const next = isFirst ? `/bring-in?account=${accountId}` : `/marketplaces?connected=${accountId}`;
    return Response.redirect(`${config.baseUrl}${next}`, 303);
  } catch (error) {
    const message = error instanceof NettingError ? error.message : 'The account could not be connected';
    return Response.redirect(`${config.baseUrl}/marketplaces?problem=${encodeURIComponent(message)}`, 303);
  }
}
