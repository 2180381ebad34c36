import type { KindVerbs, Read } from '../kind';

const named = /^[0-9a-f]{64}$/;

/** A short film by its hash; nothing is the empty text. */
export const clipKind: KindVerbs<'clip'> = {
  read(kind, text): Read {
    const value = text.trim();
    const fault = clipKind.fault(kind, value);
    return fault ? { problem: fault } : { value };
  },
  show: (_kind, value) => (typeof value === 'string' ? value : ''),
  fault: (_kind, value) =>
    value === '' || (typeof value === 'string' && named.test(value)) ? null : 'A clip is named by its hash',
};
