import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';

const wasm = join(process.cwd(), 'node_modules', 'zxing-wasm', 'dist', 'reader', 'zxing_reader.wasm');
let isPrepared = false;

/** The pages of a PDF as a printer of so many dots an inch would print them, each as a PNG. */
export function printed(pdf: Uint8Array, dpi: number): Buffer[] {
  const folder = mkdtempSync(join(tmpdir(), 'printed-'));
  try {
    writeFileSync(join(folder, 'in.pdf'), pdf);
    execFileSync('pdftoppm', ['-png', '-gray', '-r', String(dpi), join(folder, 'in.pdf'), join(folder, 'page')]);
    return readdirSync(folder)
      .filter((name) => name.endsWith('.png'))
      .sort()
      .map((name) => readFileSync(join(folder, name)));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What a decoder reads on a picture: every code, in no order. */
export async function codesOn(picture: Uint8Array): Promise<string[]> {
  if (!isPrepared) {
    const wasmBinary = readFileSync(wasm);
    await prepareZXingModule({ overrides: { wasmBinary: new Uint8Array(wasmBinary).buffer }, fireImmediately: true });
    isPrepared = true;
  }
  const found = await readBarcodes(new Uint8Array(picture), {
    formats: ['Code128', 'QRCode'],
    tryHarder: true,
    maxNumberOfSymbols: 255,
  });
  return found.filter((one) => one.isValid).map((one) => one.text);
}
