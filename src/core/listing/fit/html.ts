import { parseEntities } from 'parse-entities';

/** Text of markup as plain text: entities become what they stand for, control characters among them nothing. */
export const unescapeHtml = (text: string): string =>
  /[&\u0000\ufffd]/.test(text) ? parseEntities(text).replace(/\u0000|\ufffd/g, '') : text;
