type Sides = { width: number; height: number };

/**
 * A photo as a listing names it: its hash, and the shape it has to be brought to, as in `<hash>~1x1`. What is chosen for an
 * account may be a picture that was made of one of the item's for it alone, as in `<hash>@1600x1200:<the item's>`. A
 * printable of artwork is named by how it is made, as in `<hash>!<plan>`.
 */
export type PhotoReference = {
  hash: string;
  shape: [width: number, height: number] | null;
  /** Its sides, and the item's photo that it stands for. */
  made: (Sides & { of: string }) | null;
  /** The plan, in words, by which a printable is made of it. */
  print: string | null;
};

const form = /^([^~@!]+)(?:!([^~@]+))?(?:@(\d{1,5})x(\d{1,5}):([^~@]+))?(?:~(\d{1,4})x(\d{1,4}))?$/;
const strict = /^[0-9a-f]{64}(@\d{1,5}x\d{1,5}:[0-9a-f]{64})?(~\d{1,4}x\d{1,4})?$/;

/** Whether a text names a photo so. */
export const isPhotoReference = (text: string): boolean => strict.test(text);

export function readPhotoReference(reference: string): PhotoReference {
  const [, hash = reference, print = null, width, height, of, wide, high] = form.exec(reference) ?? [];
  return {
    hash,
    shape: wide && high ? [Number(wide), Number(high)] : null,
    made: of ? { width: Number(width), height: Number(height), of } : null,
    print,
  };
}

/** Every picture that a list of photos names, also those that others were made of. */
export const photoHashesIn = (value: unknown): string[] =>
  Array.isArray(value)
    ? value.flatMap((one) => {
        const { hash, made } = readPhotoReference(String(one));
        return made ? [hash, made.of] : [hash];
      })
    : [];

/** Shapes are written in whole numbers up to a thousand, so that equal shapes are equal words. */
const ratioWord = (ratio: number) => (ratio === 1 ? '1x1' : `${Math.round(ratio * 100)}x100`);

export const photoReference = (hash: string, ratio: number | null): string =>
  ratio === null ? hash : `${hash}~${ratioWord(ratio)}`;

/** A printable that is made of a picture of artwork by a plan. */
export const printPhotoReference = (hash: string, plan: string): string => `${hash}!${plan}`;

/** A picture that was made of an item's photo for one account alone, as it is chosen there. */
export const madeReference = ({ hash, width, height }: Sides & { hash: string }, of: string): string =>
  `${hash}@${width}x${height}:${of}`;
