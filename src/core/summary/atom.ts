import { escapeUTF8 } from 'entities';
import { type Summary, titleOf, wordsOf } from './summary';

/**
 * Summaries as an Atom feed (RFC 4287), the newest first. Ids are tag URIs (RFC 4151): they stay when the address changes.
 * @param self the feed's own address
 * @param home where the pages are that it leads to
 */
export function atomOf(
  summaries: readonly Summary[],
  { self, home, host }: { self: string; home: string; host: string },
) {
  const text = (words: string) => escapeUTF8(words);
  const entries = summaries.map(
    (one) => `
  <entry>
    <id>tag:${host},${one.day}:attention</id>
    <title>${text(titleOf(one))}</title>
    <updated>${one.madeAt}</updated>
    <link rel="alternate" href="${text(`${home}/attention`)}"/>
    <content type="text">${text(wordsOf(one))}</content>
  </entry>`,
  );
  return `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
  <id>tag:${host},2026:attention</id>
  <title>Netting: what needs you</title>
  <updated>${summaries[0]?.madeAt ?? '2026-01-01T00:00:00.000Z'}</updated>
  <author><name>Netting</name></author>
  <link rel="self" href="${text(self)}"/>
  <link rel="alternate" href="${text(`${home}/attention`)}"/>${entries.join('')}
</feed>
`;
}
