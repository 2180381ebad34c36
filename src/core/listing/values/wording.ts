import { conditionLabel } from '../../item/condition';
import type { Issue } from '../fields';
import { escapeHtml } from '../fit/escape-html';
import { fitHighlights } from '../fit/highlights';
import { unescapeHtml } from '../fit/html';
import { withoutLinks } from '../fit/links';
import { cutText } from '../fit/plain-text';
import { productTitle } from '../fit/product-title';
import { fitTags } from '../fit/tags';
import { textLength } from '../fit/text-length';
import { fitTitle } from '../fit/title';
import { type Draft, faultsOf, type Part, text, unused } from './draft';

/** @param colour the colour there, for titles by pattern */
export function title(draft: Draft, colour: string): Part {
  const { item, rules } = draft;
  const limit = rules.title;
  if (!limit) return unused;
  const written = draft.override('title');
  if (written !== undefined)
    return { value: written, origin: 'override', length: textLength(text(written)), max: limit.max };
  const template = draft.fromTemplate('title', 'plain');
  const source = template?.text ?? item.title;
  const fitted =
    limit.pattern === 'product'
      ? productTitle({ ...item, title: source }, colour, limit.max)
      : fitTitle(source, limit.max, [item.brand, item.model], [item.category]);
  return {
    value: fitted.text,
    origin: template ? 'template' : fitted.text === item.title ? 'master' : 'fitted',
    length: textLength(fitted.text),
    max: limit.max,
    lost: fitted.lost.length ? fitted.lost : undefined,
    faults: template?.faults,
  };
}

/** The note goes into its own field where there is one that may be used with this condition. */
export function conditionNote(draft: Draft, conditionId: unknown): Part {
  const { item, rules } = draft;
  const rule = rules.conditionNote;
  if (!rule || rule.forbiddenOn.includes(String(conditionId ?? ''))) return unused;
  const written = draft.override('conditionNote');
  if (written !== undefined)
    return { value: written, origin: 'override', length: textLength(text(written)), max: rule.max };
  const template = draft.fromTemplate('conditionNote', 'plain');
  const source = template?.text ?? item.conditionNote;
  const fitted = cutText(rule.plain ? withoutMarkup(source) : source, rule.max);
  return {
    value: fitted.text,
    origin: template ? 'template' : fitted.cut ? 'fitted' : 'master',
    length: textLength(fitted.text),
    max: rule.max,
    lost: fitted.cut ? ['the end of the note'] : undefined,
    faults: template?.faults,
  };
}

export function highlights(draft: Draft): Part {
  const rule = draft.rules.highlights;
  if (!rule) return unused;
  const written = draft.override('highlights');
  if (Array.isArray(written)) return { value: written, origin: 'override', length: written.length, max: rule.max };
  const template = draft.fromTemplate('highlights', 'plain');
  const lines = template?.text
    ?.split('\n')
    .map((line) => line.replace(/^[•*-]\s*/, '').trim())
    .filter(Boolean);
  const fitted = fitHighlights(lines ? { ...draft.item, highlights: lines } : draft.item, rule);
  const same = fitted.fromAttributes === 0 && fitted.lost.length === 0;
  return {
    value: fitted.highlights,
    origin: lines ? 'template' : same ? 'master' : 'fitted',
    length: fitted.highlights.length,
    max: rule.max,
    lost: fitted.lost.length ? fitted.lost : undefined,
    faults: template?.faults,
  };
}

/** Markup and blanks aside, so that a note in the text is found however it is set. */
const folded = (raw: string) =>
  unescapeHtml(raw.replace(/<[^>]*>/g, ' '))
    .replace(/\s+/g, ' ')
    .toLowerCase();

type Pieces = {
  body: string;
  isTemplate: boolean;
  highlights: string[];
  note: string;
  footer: string;
  faults: Issue[];
};

/** What the text is made of: the template's or the item's own, highlights without a field, the note once, the footer. */
function pieces(draft: Draft, format: 'rich' | 'plain'): Pieces {
  const { item, account, rules } = draft;
  const template = draft.fromTemplate('description', format);
  const body = template?.text ?? (format === 'rich' ? item.description : draft.plainDescription);
  const note = item.conditionNote.trim();
  const told = note !== '' && folded(body).includes(folded(note));
  const templateFooter = draft.fromTemplate('footer', 'plain');
  const footer = templateFooter ? null : draft.fill(account.footer, 'plain');
  return {
    body,
    isTemplate: template !== null,
    highlights: rules.highlights || template ? [] : item.highlights,
    note: note && !told ? `Condition: ${conditionLabel(item.condition)}. ${note}` : '',
    footer: templateFooter?.text ?? footer?.text ?? '',
    faults: [
      ...(template?.faults ?? []),
      ...(templateFooter?.faults ?? []),
      ...(footer ? faultsOf(footer, 'description', `The footer of ${account.name}`) : []),
    ],
  };
}

export function description(draft: Draft, titleText: string): Part {
  const { item, rules } = draft;
  const rule = rules.description;
  if (!rule) return unused;
  const written = draft.override('description');
  if (written !== undefined)
    return { value: written, origin: 'override', length: textLength(text(written)), max: rule.max };
  const made = pieces(draft, rule.format === 'rich' ? 'rich' : 'plain');
  const origin = made.isTemplate ? 'template' : 'fitted';
  const lost: string[] = [];
  if (rule.format === 'rich') {
    const list = made.highlights.length
      ? `<ul>${made.highlights.map((one) => `<li>${escapeHtml(one)}</li>`).join('')}</ul>`
      : '';
    const whole = [
      made.body,
      list,
      made.note && `<p>${escapeHtml(made.note)}</p>`,
      made.footer && `<p>${escapeHtml(made.footer)}</p>`,
    ]
      .filter(Boolean)
      .join('');
    const { text: value, removed } = rule.links === false ? withoutLinks(whole) : { text: whole, removed: 0 };
    if (removed) lost.push(removed === 1 ? 'a link' : `${removed} links`);
    return {
      value,
      origin: value === item.description ? 'master' : origin,
      length: textLength(value),
      max: rule.max,
      lost: lost.length ? lost : undefined,
      faults: made.faults,
    };
  }
  const list = made.highlights.map((one) => `• ${one}`).join('\n');
  const head = rule.titleFirst ? withoutMarkup(titleText) : '';
  const cleaned = withoutMarkup([made.body, list].filter(Boolean).join('\n\n'));
  const { text: body, removed } = rule.links === false ? withoutLinks(cleaned) : { text: cleaned, removed: 0 };
  if (removed) lost.push(removed === 1 ? 'a link' : `${removed} links`);
  const tail = [withoutMarkup(made.note), made.footer].filter(Boolean).join('\n\n');
  // The first line, the note and the footer always stay; what must go goes from the end of the text.
  const around = (head ? textLength(head) + 2 : 0) + (tail ? textLength(tail) + 2 : 0);
  const cut = cutText(body, Math.max(0, rule.max - around));
  if (cut.cut) lost.push('the end of the description');
  const joined = [head, cut.text, tail].filter(Boolean).join('\n\n');
  const value = cutText(rule.format === 'plain' ? joined.replace(/\n{2,}/g, '\n') : joined, rule.max).text;
  return {
    value,
    origin,
    length: textLength(value),
    max: rule.max,
    lost: lost.length ? lost : undefined,
    faults: made.faults,
  };
}

/** A person's plain words may look like markup (`<b>`); nothing in plain text does. */
const withoutMarkup = (plain: string): string => plain.replace(/<(\/?[a-z][^>]*)>/gi, '‹$1›');

export function tags(draft: Draft): Part {
  const rule = draft.rules.tags;
  if (!rule) return unused;
  const written = draft.override('tags');
  if (Array.isArray(written)) return { value: written, origin: 'override', length: written.length, max: rule.max };
  const template = draft.fromTemplate('tags', 'plain');
  const words = template?.text
    ? [...new Set([...draft.item.keywords, ...template.text.split(/[,\n]/).map((one) => one.trim())])].filter(Boolean)
    : draft.item.keywords;
  const fitted = fitTags(words, rule, draft.account.houseTag);
  const same = fitted.tags.length === words.length && fitted.tags.every((tag, index) => tag === words[index]);
  return {
    value: fitted.tags,
    origin: template ? 'template' : same ? 'master' : 'fitted',
    length: fitted.tags.length,
    max: rule.max,
    lost: fitted.lost.length ? fitted.lost : undefined,
    faults: template?.faults,
  };
}
