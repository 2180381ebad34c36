import { z } from 'zod';
import { photoRecipeSchema } from '@/core/photo/recipe';
import { sampleOf } from '@/photos/sample';
import { actorOf } from '@/services/access/identify-actor';
export const dynamic = 'force-dynamic';

const querySchema = z.object({
  of: z.string().regex(/^[0-9a-f]{64}$/),
  recipe: z.string().max(8_000),
  side: z.coerce.number().int().min(16).max(900).default(320),
});

/** What a recipe would make of a photo, before anything is kept. */
export async function GET(request: Request): Promise<Response> {
  if (!(await actorOf(request.headers))) return new Response(null, { status: 401 });
  const query = querySchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  const recipe = query.success ? photoRecipeSchema.safeParse(jsonOf(query.data.recipe)) : null;
  if (!query.success || !recipe?.success) return new Response(null, { status: 422 });
  try {
    const bytes = await sampleOf(query.data.of, recipe.data, query.data.side);
    return new Response(new Uint8Array(bytes), {
      headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=86400, immutable' },
    });
  } catch {
    return new Response(null, { status: 404 });
  }
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
