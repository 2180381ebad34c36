import { z } from 'zod';
import { auth } from '@/services/access/auth';
import { countTry, forgetTries } from '@/services/access/sign-in-guard';

export const dynamic = 'force-dynamic';

export const GET = (request: Request): Promise<Response> => auth().handler(request);

export async function POST(request: Request): Promise<Response> {
  if (!new URL(request.url).pathname.endsWith('/sign-in/email')) return auth().handler(request);
  const parsed = z.object({ email: z.string().max(190) }).safeParse(
    await request
      .clone()
      .json()
      .catch(() => null),
  );
  if (!parsed.success) return Response.json({ message: 'Write your e-mail address and password' }, { status: 400 });
  const { email } = parsed.data;
  const wait = await countTry(email);
  if (wait > 0)
    return Response.json(
      { message: `Too many tries. Wait ${wait} seconds, then try again` },
      { status: 429, headers: { 'retry-after': String(wait) } },
    );
  const answer = await auth().handler(request);
  if (answer.ok) await forgetTries(email);
  return answer;
}
