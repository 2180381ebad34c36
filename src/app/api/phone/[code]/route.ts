import { problemOf } from '@/http/problem';
import { readLimited } from '@/http/read-limited';
import { maxPhotoBytes } from '@/photos/intake';
import { addFromPhone } from '@/services/items/add-from-phone';
export const dynamic = 'force-dynamic';

/** A picture from a phone: the code in the address opens one item, for a short time, for adding alone. */
export async function POST(request: Request, { params }: { params: Promise<{ code: string }> }): Promise<Response> {
  try {
    const { code } = await params;
    const answer = await addFromPhone(code, {
      bytes: await readLimited(request, maxPhotoBytes),
      name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
    });
    return Response.json(answer, { status: 201, headers: { 'cache-control': 'no-store' } });
  } catch (error) {
    return problemOf(error);
  }
}
