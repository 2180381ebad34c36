import { config } from '@/config';
import { NettingError } from '@/core/errors';
import { openApi } from '@/http/openapi';
import { problemOf } from '@/http/problem';
import { actorOf } from '@/services/access/identify-actor';
export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  if (!(await actorOf(request.headers)))
    return problemOf(new NettingError('not-signed-in', 'Sign in, or send an API token'));
  return Response.json(openApi(config.baseUrl));
}
