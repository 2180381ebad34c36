import type { KindVerbs } from '../kind';

const counted = (most: number) => `At most ${most.toLocaleString('en')} characters`;

const plain = {
  read: (kind: { most: number }, text: string) =>
    text.length > kind.most ? { problem: counted(kind.most) } : { value: text },
  show: (_kind: unknown, value: unknown) => (value === null ? '' : String(value)),
  fault: (kind: { most: number }, value: unknown) =>
    typeof value !== 'string' ? 'This is a text' : value.length > kind.most ? counted(kind.most) : null,
};

export const textKind: KindVerbs<'text'> = plain;
/** HTML stands as it is; it is cleaned where it is stored. */
export const richKind: KindVerbs<'rich'> = plain;
