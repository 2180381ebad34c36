import { type Page, test } from '@playwright/test';

type Deed = 'key' | 'sign' | 'click' | 'field';
const known = new WeakSet<Page>();

/**
 * Counts what hands do in a browser test, and tells it when the page is closed: keys that command, signs that are typed,
 * clicks, and fields that were filled in one go (as by pasting). Asked for by `NETTING_HANDS=1`.
 */
export async function countHands(page: Page): Promise<void> {
  if (!process.env.NETTING_HANDS || known.has(page)) return;
  known.add(page);
  const counts: Record<Deed, number> = { key: 0, sign: 0, click: 0, field: 0 };
  const { title } = test.info();
  const begun = Date.now();
  await page.exposeFunction('toldByHand', (deed: Deed) => {
    counts[deed]++;
  });
  await page.addInitScript(() => {
    const told = (deed: Deed) => (window as unknown as { toldByHand: (deed: Deed) => void }).toldByHand(deed); // exposed above
    let typedAt = 0;
    addEventListener(
      'keydown',
      (event) => {
        if (!event.isTrusted || ['Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return;
        const isWriting = (event.target as HTMLElement).matches?.('input, textarea, [contenteditable]');
        const isSign = event.key.length === 1 && !event.ctrlKey && !event.altKey && isWriting;
        typedAt = performance.now();
        told(isSign ? 'sign' : 'key');
      },
      true,
    );
    addEventListener('pointerdown', (event) => event.isTrusted && told('click'), true);
    addEventListener(
      'input',
      (event) => {
        const isTyped = performance.now() - typedAt < 50 || !(event instanceof InputEvent);
        if (!isTyped) told('field');
      },
      true,
    );
  });
  page.on('close', () => {
    const { key, sign, click, field } = counts;
    const seconds = ((Date.now() - begun) / 1_000).toFixed(0);
    console.log(`  by hand: ${key} keys, ${click} clicks, ${field} fields, ${sign} signs, ${seconds} s – ${title}`);
  });
}
