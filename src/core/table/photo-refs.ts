const hash = /^[0-9a-f]{64}$/;
const address = /^https?:\/\/\S+$/i;
const fileName = /^[^/\\]*[^/\\ ]\.(jpe?g|png|webp)$/i;

export const isPhotoHash = (ref: string): boolean => hash.test(ref);
export const isPhotoAddress = (ref: string): boolean => address.test(ref);

const most = 60;

/** Names may hold blanks; numbers and addresses never do, so that blanks stand between them. */
const apart = (part: string): string[] => {
  const words = part.split(/\s+/);
  return words.every((word) => isPhotoHash(word) || isPhotoAddress(word)) ? words : [part];
};

/**
 * The photos that a cell names: by our own number, by an address, or by the name of a file that came along; apart by
 * commas, semicolons, bars or lines.
 */
export function readPhotoRefs(text: string): { refs: string[] } | { problem: string } {
  const refs = text
    .split(/[\n,;|]+/)
    .map((part) => part.trim())
    .filter(Boolean)
    .flatMap(apart);
  const odd = refs.find((ref) => !isPhotoHash(ref) && !isPhotoAddress(ref) && !fileName.test(ref));
  if (odd !== undefined)
    return { problem: `“${odd.slice(0, 60)}” is no photo: write the name of a file, or an address` };
  return refs.length > most ? { problem: `At most ${most} photos` } : { refs };
}
