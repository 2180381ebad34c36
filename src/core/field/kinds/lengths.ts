import { parseLength, parseSides } from '../../measure/length';
import type { KindVerbs } from '../kind';

const isLength = (value: unknown) =>
  typeof value === 'number' && Number.isSafeInteger(value) && value >= 0 && value <= 20_000;
const centimetres = (millimetres: unknown) => String(Number(millimetres) / 10);

export const lengthKind: KindVerbs<'length'> = {
  read(_kind, text) {
    if (text.trim() === '') return { value: null };
    const millimetres = parseLength(text);
    return millimetres === null ? { problem: 'Write 19,5 cm or 7 1/2 in' } : { value: millimetres };
  },
  show: (_kind, value) => (typeof value === 'number' ? `${centimetres(value)} cm` : ''),
  fault: (_kind, value) => (isLength(value) ? null : 'A length up to 20 m'),
};

export const sizeKind: KindVerbs<'size'> = {
  read(_kind, text) {
    if (text.trim() === '') return { value: null };
    const sides = parseSides(text);
    return sides ? { value: sides } : { problem: 'Write 30 x 20 x 10 cm' };
  },
  show: (_kind, value) => (Array.isArray(value) ? `${value.map(centimetres).join(' x ')} cm` : ''),
  fault: (_kind, value) =>
    Array.isArray(value) && value.length === 3 && value.every(isLength) ? null : 'Three sides are needed',
};
