const bare = /\b(?:https?:\/\/|www\.)[^\s<>"')\]]+/gi;

/** Text or markup without addresses of web pages; the words of a link stay. Says how many went. */
export function withoutLinks(text: string): { text: string; removed: number } {
  if (!/https?:|www\.|<a\b/i.test(text)) return { text, removed: 0 };
  let removed = 0;
  let out = text.replace(/<a\b[^>]*>([\s\S]*?)<\/a>/gi, (_whole, words: string) => {
    removed++;
    return words;
  });
  out = out.replace(/<\/?a\b[^>]*>/gi, '');
  out = out.replace(bare, () => {
    removed++;
    return '';
  });
  return { text: out.replace(/[ \t]{2,}/g, ' '), removed };
}

/** True when a text holds the address of a web page. */
export const hasLink = (text: string): boolean => /https?:\/\/|\bwww\.|<a\b/i.test(text);
