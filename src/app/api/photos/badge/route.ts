import { z } from 'zod';
import { badgePicture } from '@/photos/sample';
import { actorOf } from '@/services/access/identify-actor';
import { artOf, badgeInputSchema } from '@/services/photos/save-badge';
export const dynamic = 'force-dynamic';

const querySchema = z.object({
  art: z.string().max(2_000),
  width: z.coerce.number().int().min(16).max(900).default(240),
});

/** A badge as it would be drawn, on a see-through ground; its `X-Ratio` is its width by its height. */
export async function GET(request: Request): Promise<Response> {
  if (!(await actorOf(request.headers))) return new Response(null, { status: 401 });
  try {
    const { art, width } = querySchema.parse(Object.fromEntries(new URL(request.url).searchParams));
    const { ratio: _told, ...input } = JSON.parse(art) as { ratio?: number }; // checked by the next line
    const drawn = await artOf(badgeInputSchema.parse(input));
    return new Response(new Uint8Array(await badgePicture(drawn, width)), {
      headers: {
        'content-type': 'image/png',
        'x-ratio': String(drawn.ratio),
        'cache-control': 'private, max-age=86400',
      },
    });
  } catch {
    return new Response(null, { status: 422 });
  }
}
