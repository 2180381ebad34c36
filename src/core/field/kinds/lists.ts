import type { Json } from '../../json';
import { isPhotoReference } from '../../photo/reference';
import type { KindOf, KindVerbs, Read } from '../kind';
import { choiceKind } from './choices';
import { escapeText, splitText, unescapeText } from './escape';

const entries = (text: string): string[] =>
  splitText(text, text.includes('\n') ? '\n' : ',')
    .map((one) => unescapeText(one).trim())
    .filter(Boolean);

const context = { currency: '' };
const labelled = (kind: KindOf<'list'>, entry: Json) =>
  kind.choices ? choiceKind.show({ is: 'choice', choices: kind.choices }, entry, context) : String(entry);

/** Entries apart by commas; where one holds a comma they stand one a line. */
export const listKind: KindVerbs<'list'> = {
  read(kind, text): Read {
    const said = entries(text);
    const { choices } = kind;
    if (!choices) {
      const fault = listKind.fault(kind, said);
      return fault ? { problem: fault } : { value: said };
    }
    const ids: string[] = [];
    for (const one of said) {
      const read = choiceKind.read({ is: 'choice', choices }, one, context);
      if ('problem' in read) return read;
      ids.push(String(read.value));
    }
    return { value: ids };
  },
  show(kind, value) {
    if (!Array.isArray(value)) return value === null ? '' : String(value);
    const said = value.map((one) => labelled(kind, one));
    const lines = said.some((one) => /[,\n\\]/.test(one));
    return lines ? said.map((one) => `${escapeText(one, '')}\n`).join('') : said.join(', ');
  },
  fault(kind, value) {
    if (!Array.isArray(value) || value.some((one) => typeof one !== 'string')) return 'A list of words is needed';
    if (value.length > kind.most) return `At most ${kind.most}`;
    return value.some((one) => String(one).length > kind.each) ? `Each has at most ${kind.each} characters` : null;
  },
};

/** `Name: text`, one a line. */
export const mapKind: KindVerbs<'map'> = {
  read(kind, text): Read {
    const pairs: [string, string][] = [];
    for (const line of splitText(text, '\n').filter(Boolean)) {
      const [name = '', ...rest] = splitText(line, ':');
      if (rest.length === 0) return { problem: `Write “${name}: …”` };
      pairs.push([unescapeText(name), unescapeText(rest.join(':').trim())]);
    }
    const value = Object.fromEntries(pairs.filter(([, said]) => said !== ''));
    const fault = mapKind.fault(kind, value);
    return fault ? { problem: fault } : { value };
  },
  show: (_kind, value) =>
    typeof value === 'object' && value !== null
      ? Object.entries(value)
          .map(([name, said]) => `${escapeText(name, ':')}: ${escapeText(String(said), ':')}`)
          .join('\n')
      : '',
  fault(kind, value) {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return 'Names with their values are needed';
    for (const [name, said] of Object.entries(value)) {
      if (name === '' || name.length > kind.name) return `A name has 1 to ${kind.name} characters`;
      if (typeof said !== 'string' || said.length > kind.each) return `${name} has at most ${kind.each} characters`;
    }
    return null;
  },
};

export const photosKind: KindVerbs<'photos'> = {
  read(kind, text): Read {
    const value = text.split(/[\s,]+/).filter(Boolean);
    const fault = photosKind.fault(kind, value);
    return fault ? { problem: fault } : { value };
  },
  show: (_kind, value) => (Array.isArray(value) ? value.join(' ') : ''),
  fault: (_kind, value) =>
    Array.isArray(value) &&
    value.length <= 200 &&
    value.every((one) => typeof one === 'string' && isPhotoReference(one))
      ? null
      : 'Photos are named by their hash',
};
