import { escapeText } from 'entities/escape';

/** Plain text as it stands in markup: nothing in it is a tag or an entity. */
export const escapeHtml = (plain: string): string => escapeText(plain);
