import { toSVG } from 'bwip-js/node';
import { z } from 'zod';
import { problemOf } from '@/http/problem';
import { withForm } from '@/http/read-limited';
import { auth } from '@/services/access/auth';
import { actorOf } from '@/services/access/identify-actor';
import { noteAboutPeople, noteSignIn } from '@/services/access/note-about-people';
import { noteTry } from '@/services/access/note-try';
import { countTry, forgetTries, freeTries } from '@/services/access/sign-in-guard';

export const dynamic = 'force-dynamic';

/** What of the sign-in library is open; people are made, sent away and listed by Netting itself. */
const open = new Set([
  'get-session',
  'sign-in/email',
  'sign-out',
  'change-password',
  'two-factor/enable',
  'two-factor/disable',
  'two-factor/generate-backup-codes',
  'two-factor/verify-totp',
  'two-factor/verify-backup-code',
]);
/** Where somebody who is signed in says the password again: a session that was left open must not help to guess it. */
const askPassword = new Set([
  'change-password',
  'two-factor/enable',
  'two-factor/disable',
  'two-factor/generate-backup-codes',
]);

const deeds: Record<string, string> = {
  'change-password': 'Changed the own password; signed out everywhere else',
  'two-factor/enable': 'Began a second step of signing in',
  'two-factor/disable': 'Took the second step of signing in away',
  'two-factor/generate-backup-codes': 'Had new codes made for the second step',
};

const placeOf = (request: Request): string => new URL(request.url).pathname.replace(/^\/api\/auth\//, '');
/** As it was found out where the connection came in. */
const addressOf = (request: Request): string => request.headers.get('x-forwarded-for') ?? 'nowhere';
const nothingHere = () => Response.json({ message: 'There is nothing at this address' }, { status: 404 });

/** Lets a try go on unless there were too many, of this person or from this address; the right password forgets them. */
async function slowed(whose: string, request: Request): Promise<Response> {
  const from = `address ${addressOf(request)}`;
  const wait = Math.max(await countTry(whose), await countTry(from, freeTries.address));
  if (wait > 0)
    return Response.json(
      { message: `Too many tries. Wait ${wait} seconds, then try again` },
      { status: 429, headers: { 'retry-after': String(wait) } },
    );
  const answer = await auth().handler(request);
  if (answer.ok) await Promise.all([forgetTries(whose), forgetTries(from)]);
  return answer;
}

/** Keeps that somebody came in by the second step. */
async function noted(answer: Response, address: string): Promise<Response> {
  const told = z.looseObject({ user: z.looseObject({ name: z.string() }) }).safeParse(
    await answer
      .clone()
      .json()
      .catch(() => null),
  );
  if (answer.ok && told.success) await noteSignIn(told.data.user.name, `Signed in by the second step, from ${address}`);
  return answer;
}

/** The secret as a code for the camera of a phone (ISO/IEC 18004), beside its address. */
async function withPicture(answer: Response): Promise<Response> {
  if (!answer.ok) return answer;
  const told = z.looseObject({ totpURI: z.string() }).safeParse(await answer.clone().json());
  if (!told.success) return answer;
  const frame = { scale: 4, paddingwidth: 4, paddingheight: 4, backgroundcolor: 'FFFFFF' };
  const code = toSVG({ bcid: 'qrcode', text: told.data.totpURI, ...frame });
  const headers = new Headers(answer.headers);
  headers.delete('content-length');
  return Response.json({ ...told.data, code }, { status: answer.status, headers });
}

export async function GET(request: Request): Promise<Response> {
  return open.has(placeOf(request)) ? auth().handler(request) : nothingHere();
}

export async function POST(asked: Request): Promise<Response> {
  const place = placeOf(asked);
  if (!open.has(place)) return nothingHere();
  let request: Request;
  try {
    // Whoever else knew the old password is signed out with it, whatever the request says.
    request = await withForm(asked, place === 'change-password' ? { revokeOtherSessions: true } : {});
  } catch (error) {
    return problemOf(error);
  }
  if (askPassword.has(place)) {
    const who = await actorOf(request.headers);
    const answer =
      who && !who.byToken ? await slowed(`password of ${who.actor.id}`, request) : await auth().handler(request);
    if (who && answer.ok) await noteAboutPeople(who.actor, `${deeds[place] ?? place}, from ${addressOf(request)}`);
    return place === 'two-factor/enable' ? withPicture(answer) : answer;
  }
  if (place.startsWith('two-factor/verify')) return noted(await auth().handler(request), addressOf(request));
  if (place !== 'sign-in/email') return auth().handler(request);
  const parsed = z.object({ email: z.string().max(190) }).safeParse(
    await request
      .clone()
      .json()
      .catch(() => null),
  );
  if (!parsed.success) return Response.json({ message: 'Write your e-mail address and password' }, { status: 400 });
  const answer = await slowed(parsed.data.email, request);
  await noteTry(parsed.data.email, answer, addressOf(request));
  return answer;
}
