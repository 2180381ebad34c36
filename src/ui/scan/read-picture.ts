type Reader = typeof import('zxing-wasm/reader');
let reader: Promise<Reader> | null = null;

/** Longest side at which codes are looked for. */
const side = 1_200;

/** The reader with its own module from this server: left to itself it would look for that elsewhere. */
export function openReader(): Promise<Reader> {
  reader ??= (async () => {
    const found = await import('zxing-wasm/reader');
    await found.prepareZXingModule({
      overrides: { locateFile: (path: string) => `/api/reader/${path.replace(/^.*\//, '')}` },
      fireImmediately: true,
    });
    return found;
  })().catch((error: unknown) => {
    reader = null;
    throw error;
  });
  return reader;
}

/** Codes that are seen in a picture, as they read. */
export async function codesIn(picture: CanvasImageSource, width: number, height: number): Promise<string[]> {
  const { readBarcodes } = await openReader();
  const scale = Math.min(1, side / Math.max(width, height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return [];
  context.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const found = await readBarcodes(context.getImageData(0, 0, canvas.width, canvas.height), {
    formats: ['EAN13', 'EAN8', 'UPCA', 'UPCE', 'Code128', 'Code39', 'ITF', 'QRCode', 'DataMatrix'],
    maxNumberOfSymbols: 4,
    tryHarder: true,
  });
  return found.filter((one) => one.isValid && one.text !== '').map((one) => one.text);
}
