import { expect } from '@playwright/test';
import { openChromium } from '../support/chromium.mjs';

const owner = { email: 'owner@grainhouse.example', password: 'harbour-light-35' };
/** What is broken comes back within this; a person waits and looks again. */
const patienceMs = 25_000;
const mostTries = 3;

/** A seller at the screen, who waits, looks again and begins anew where something did not work. */
export class Seller {
  /** Each chore by its name: how often it was begun, and why the last try failed, where it did. */
  chores = [];
  picture = 0;

  constructor({ base, folder, say }) {
    Object.assign(this, { base, folder, say });
  }

  async begin() {
    this.browser = await openChromium();
    this.context = await this.browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: this.base });
    this.page = await this.context.newPage();
    this.page.setDefaultTimeout(patienceMs);
    this.page.on('dialog', (dialog) => void dialog.accept());
    await this.go('/');
  }

  /** Goes to a page, again and again while nobody answers; signs in where that is asked for. */
  async go(path) {
    const { page } = this;
    for (let tries = 0; ; tries++) {
      try {
        const answer = await page.goto(path);
        if (!answer?.ok()) throw new Error(`${path} was answered with ${answer?.status()}`);
        if (page.url().includes('/sign-in')) {
          await page.getByLabel('E-mail address').fill(owner.email);
          await page.getByLabel('Password').fill(owner.password);
          await page.keyboard.press('Enter');
          await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
          if (path !== '/') continue;
        }
        return;
      } catch (error) {
        if (tries >= 20) throw error;
        await page.waitForTimeout(500);
      }
    }
  }

  /** Presses what can be pressed, again where nothing came of it: the answer may have been lost. */
  async press(what, until, tries = 4) {
    for (let at = 0; ; at++) {
      await what.click();
      try {
        await expect(until.first()).toBeVisible({ timeout: patienceMs });
        return;
      } catch (error) {
        if (at + 1 >= tries || !(await what.isVisible())) throw error;
      }
    }
  }

  /** Something that is done in one go; begun anew by who sits there when it did not work. */
  async chore(name, work) {
    const began = Date.now();
    const one = { name, tries: 0, problem: null, seconds: 0 };
    this.chores.push(one);
    while (one.tries < mostTries) {
      one.tries++;
      try {
        const told = await work(this.page);
        one.problem = null;
        one.seconds = Math.round((Date.now() - began) / 1_000);
        this.say(
          `    ${name}${told ? `: ${told}` : ''}, ${one.seconds} s${one.tries > 1 ? `, at try ${one.tries}` : ''}`,
        );
        return true;
      } catch (error) {
        one.problem = error.message.split('\n').slice(0, 3).join(' ').slice(0, 300);
        await this.page
          .screenshot({ path: `${this.folder}/week-${++this.picture}.png`, timeout: 5_000 })
          .catch(() => undefined);
        this.say(`    ${name}: try ${one.tries} failed (picture ${this.picture}): ${one.problem}`);
      }
    }
    one.seconds = Math.round((Date.now() - began) / 1_000);
    return false;
  }

  /** What could not even be begun counts as not done. */
  missed(name, why) {
    this.chores.push({ name, tries: 0, problem: why, seconds: 0 });
    this.say(`    ${name}: not begun, ${why}`);
  }

  async end() {
    await this.browser?.close();
  }
}
