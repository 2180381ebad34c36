import { decodeHTML, escapeText } from 'entities';

/** Plain text as it stands in markup: nothing in it is a tag or an entity. */
export const escapeHtml = (plain: string): string => escapeText(plain);

/** Text of markup as plain text: entities become what they stand for, control characters among them nothing. */
export const unescapeHtml = (text: string): string => decodeHTML(text).replace(/\u0000|\ufffd/g, '');
