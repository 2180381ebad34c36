import type { Locator, Page } from '@playwright/test';

/** The browser's own chooser of files is answered by the test from now on: no key has to be pressed twice for it. */
export const holdChoosers = (page: Page): void => void page.on('filechooser', () => undefined);

/** A person at the keyboard and the mouse, whose keys and clicks are counted; typed text is counted apart. */
export class Hand {
  keys = 0;
  clicks = 0;
  typed = 0;
  readonly page: Page;

  constructor(page: Page) {
    this.page = page;
    holdChoosers(page);
  }

  async press(key: string, times = 1): Promise<void> {
    for (let time = 0; time < times; time++) {
      this.keys++;
      await this.page.keyboard.press(key);
    }
  }

  async type(text: string): Promise<void> {
    this.typed += [...text].length;
    await this.page.keyboard.type(text);
  }

  /** Tab to the next field, and text into it; nothing typed skips the field. */
  async next(text = ''): Promise<void> {
    await this.press('Tab');
    if (text) await this.type(text);
  }

  async click(what: Locator): Promise<void> {
    this.clicks++;
    await what.click();
  }

  /** The chooser of files is the browser's own: opened by a key, all files chosen, taken. Counted as three. */
  async choose(key: string, files: string[]): Promise<void> {
    this.keys += 3;
    const opened = this.page.waitForEvent('filechooser');
    await this.page.keyboard.press(key);
    await (await opened).setFiles(files);
  }

  get told(): string {
    return `${this.keys} keys and ${this.clicks} clicks besides ${this.typed} typed characters`;
  }
}

/** The label of the field that has the focus. */
export const focused = (page: Page): Promise<string> =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '');
