import { RE2JS } from 're2js';

/** Find and replace in one text. */
export type Replacing = { find: string; put: string; as: 'words' | 'pattern'; matchCase: boolean };

const known = new Map<string, RE2JS | string>();

/** The pattern, or why it cannot be read. */
function compiled(find: string, flags: number): RE2JS | string {
  const key = `${flags}/${find}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  let made: RE2JS | string;
  try {
    made = RE2JS.compile(find, flags);
  } catch (error) {
    made = `The pattern cannot be read: ${(error instanceof Error ? error.message : '').replace(/^.*regexp: /, '')}`;
  }
  if (known.size > 200) known.clear();
  known.set(key, made);
  return made;
}

/** The text with everything that is found replaced. Patterns are RE2's: they take linear time, whatever they are given. */
export function replaceIn(text: string, { find, put, as, matchCase }: Replacing): { to: string } | { refused: string } {
  const flags = matchCase ? 0 : RE2JS.CASE_INSENSITIVE;
  const pattern = compiled(as === 'pattern' ? find : RE2JS.quote(find), flags);
  if (typeof pattern === 'string') return { refused: pattern };
  return { to: pattern.matcher(text).replaceAll(as === 'pattern' ? put : put.replaceAll('$', '$$$$')) };
}

/** What is wrong with a replacement, and in which of its arguments; null where nothing is. */
export function replacingFault({ find, put, as }: Replacing): { argument: 'find' | 'put'; message: string } | null {
  if (as !== 'pattern') return null;
  const pattern = compiled(find, 0);
  if (typeof pattern === 'string') return { argument: 'find', message: pattern };
  const groups = [...put.matchAll(/\$(\d+)/g)].map((one) => Number(one[1]));
  const missing = groups.find((group) => group > pattern.groupCount());
  return missing === undefined ? null : { argument: 'put', message: `There is no group ${missing} in the pattern` };
}
