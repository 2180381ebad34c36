import { NettingError } from '../../core/errors';
import { addPhoto } from './add-photo';
import { itemOfCode } from './phone-code';

/** Adds a picture that came from a phone. */
export async function addFromPhone(code: string, file: { bytes: Buffer; name: string }): Promise<{ count: number }> {
  const known = await itemOfCode(code);
  if (!known)
    throw new NettingError('not-signed-in', 'This code is over', { fix: 'Show a new one on the item’s sheet' });
  const { photos } = await addPhoto({ id: 'phone', name: `${known.byName} (phone)` }, known.itemId, file);
  return { count: photos.length };
}
