import bwip from 'bwip-js/node';
import type { Symbols } from '../core/label';

type Linear = { sbs: number[] };
type Square = { pixs: number[]; pixx: number };

/** Every symbology has options and an answer of its own, which the package's types do not list. */
const encode = <T>(options: object): T | undefined => (bwip.raw as unknown as (options: object) => T[])(options)[0];

/** The modules of a text as bars (Code 128), and as a square (QR, level M). */
export const symbolsOf = (text: string): Symbols => ({
  linear: () => ({ is: 'linear', widths: encode<Linear>({ bcid: 'code128', text })?.sbs ?? [] }),
  square: () => {
    const found = encode<Square>({ bcid: 'qrcode', text, eclevel: 'M' });
    return { is: 'square', side: found?.pixx ?? 0, dark: (found?.pixs ?? []).map((one) => one === 1) };
  },
});
