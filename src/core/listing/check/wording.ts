import type { MarketRules } from '../../rules/rules';
import type { Content, Issue, ListingValue } from '../fields';
import { hasLink } from '../fit/links';
import { toPlainText } from '../fit/plain-text';
import { textLength } from '../fit/text-length';
import { fixFor, here, master, problem } from './problem';

const isMarkup = (text: string) => /<\/?[a-z][^>]*>/i.test(text);
const lettersOnly = (text: string) =>
  text
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** Brand first; letters, digits and blanks; the colour in round brackets, last. */
function patternProblem(title: string, brand: string, colour: string): string | null {
  const start = lettersOnly(brand).toLowerCase();
  if (start && brand !== 'No brand' && !title.toLowerCase().startsWith(start))
    return 'The title must begin with the brand';
  if (/[^\p{L}\p{N} ]/u.test(title.replace(/ \([\p{L}\p{N} ]+\)$/u, '')))
    return 'The title may hold only letters, digits and blanks, and the colour in round brackets last';
  if (colour && !title.endsWith(`(${colour})`)) return 'The colour must stand last, in round brackets';
  return null;
}

export function checkTitle(value: ListingValue, rules: MarketRules, content: Content): Issue[] {
  if (!rules.title) return [];
  const title = typeof value.value === 'string' ? value.value : '';
  if (title.trim() === '')
    return [problem('title-missing', 'title', 'A title is needed', master('title', 'Write the title'))];
  if (textLength(title) > rules.title.max)
    return [
      problem(
        'title-long',
        'title',
        `The title has ${textLength(title)} characters, ${rules.title.max} fit`,
        here('title', 'Shorten it here'),
      ),
    ];
  if (rules.title.pattern) {
    const colour = Object.entries(content).find(([field]) => /^attr\.(colour|shade)/.test(field))?.[1];
    const odd = patternProblem(title, String(content.brand ?? ''), String(colour ?? ''));
    if (odd) return [problem('title-pattern', 'title', odd, here('title', 'Write it by the pattern'))];
  }
  return [];
}

export function checkDescription(value: ListingValue, rules: MarketRules): Issue[] {
  const rule = rules.description;
  if (!rule) return [];
  const body = typeof value.value === 'string' ? value.value : '';
  const seen = rule.format === 'rich' ? toPlainText(body) : body;
  const counted = rule.counts === 'seen' ? seen : body;
  const say = (code: string, message: string, fix: Issue['fix']) => [problem(code, 'description', message, fix)];
  if (textLength(counted) > rule.max)
    return say(
      'description-long',
      `The description has ${textLength(counted)} characters, ${rule.max} fit`,
      fixFor(value, 'description', 'Shorten it'),
    );
  if (textLength(seen.trim()) < rule.min)
    return say(
      'description-short',
      rule.min > 1 ? `The description needs at least ${rule.min} characters` : 'A description is needed',
      fixFor(value, 'description', 'Write the description'),
    );
  if (rule.format !== 'rich' && isMarkup(body))
    return say('description-markup', 'Only plain text is allowed here', here('description', 'Remove the markup'));
  if (rule.links === false && hasLink(body))
    return say('description-links', 'Links are not allowed here', fixFor(value, 'description', 'Remove the links'));
  return [];
}

export function checkNote(value: ListingValue, rules: MarketRules): Issue[] {
  const rule = rules.conditionNote;
  const body = typeof value.value === 'string' ? value.value : '';
  if (!rule) return [];
  if (textLength(body) > rule.max)
    return [
      problem(
        'note-long',
        'conditionNote',
        `The note has ${textLength(body)} characters, ${rule.max} fit`,
        here('conditionNote', 'Shorten it here'),
      ),
    ];
  if (rule.plain && isMarkup(body))
    return [
      problem(
        'note-markup',
        'conditionNote',
        'Only plain text is allowed in the note',
        here('conditionNote', 'Remove the markup'),
      ),
    ];
  return [];
}

export function checkHighlights(value: ListingValue, rules: MarketRules): Issue[] {
  const rule = rules.highlights;
  if (!rule) return [];
  const lines = Array.isArray(value.value) ? value.value.map(String) : [];
  const say = (code: string, message: string, label: string) => [
    problem(code, 'highlights', message, fixFor(value, 'highlights', label)),
  ];
  if (lines.length < rule.min)
    return say(
      'highlights-few',
      `At least ${rule.min} highlights are needed, there are ${lines.length}`,
      'Write highlights',
    );
  if (lines.length > rule.max)
    return say('highlights-many', `${lines.length} highlights, ${rule.max} are allowed`, 'Remove some');
  if (lines.some((line) => textLength(line) > rule.maxLength))
    return say('highlight-long', `A highlight is longer than ${rule.maxLength} characters`, 'Shorten it');
  if (lines.some(isMarkup)) return say('highlight-markup', 'Highlights are plain text', 'Remove the markup');
  return [];
}

export function checkTags(value: ListingValue, rules: MarketRules): Issue[] {
  const rule = rules.tags;
  const list = Array.isArray(value.value) ? value.value.map(String) : [];
  if (!rule || value.origin !== 'override') return [];
  const say = (code: string, message: string, label: string) => [problem(code, 'tags', message, here('tags', label))];
  if (list.length > rule.max) return say('tags-many', `${list.length} tags, ${rule.max} are allowed`, 'Remove some');
  const long = list.find((tag) => textLength(tag) > rule.maxLength);
  if (long !== undefined) return say('tag-long', `“${long}” is longer than ${rule.maxLength} characters`, 'Shorten it');
  const odd =
    rule.letters === 'words'
      ? list.find((tag) => /[^\p{L}\p{N} -]/u.test(tag))
      : rule.letters === 'hashtag'
        ? list.find((tag) => !/^[\p{L}\p{N}_]+$/u.test(tag))
        : undefined;
  if (odd === undefined) return [];
  return say(
    'tag-characters',
    rule.letters === 'words'
      ? `“${odd}” may hold only letters, digits, blanks and hyphens`
      : `“${odd}” may hold no spaces and no signs`,
    'Change it',
  );
}
