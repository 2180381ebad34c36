import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from 'chrome-launcher';
import lighthouse from 'lighthouse';

/** Who may come in to the demo shop. */
const owner = { email: 'owner@grainhouse.example', password: 'harbour-light-35' };
const least = 95;
const percent = 100;
const loadedMs = 15_000;
const categories = [
  ['accessibility', 'accessibility'],
  ['best-practices', 'best practice'],
];
const chromeFlags = [
  '--headless=new',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-dev-shm-usage',
  '--disable-background-networking',
];

async function cookieOf(base) {
  const answer = await fetch(`${base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: base },
    body: JSON.stringify(owner),
  });
  return answer.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');
}

/** LH: five pages as another program judges them, of a hundred points; what is not whole is named. */
export async function judged({ base, say }) {
  const Cookie = await cookieOf(base);
  const { items } = await (await fetch(`${base}/api/v1/items?limit=1`, { headers: { cookie: Cookie } })).json();
  const userDataDir = mkdtempSync(join(tmpdir(), 'netting-judged-'));
  const chrome = await launch({ chromePath: '/usr/bin/chromium', chromeFlags, userDataDir, handleSIGINT: false });
  const figures = [];
  // The open line of news never falls silent: what still waits for that when a page is done has nothing to say.
  const late = (error) => {
    if (!/Session closed/.test(String(error))) throw error;
  };
  process.on('unhandledRejection', late);
  try {
    for (const path of ['/', `/items/${items[0].id}`, '/attention', '/insights', '/sales']) {
      const { lhr } = await lighthouse(`${base}${path}`, {
        port: chrome.port,
        onlyCategories: categories.map(([id]) => id),
        formFactor: 'desktop',
        screenEmulation: { mobile: false, width: 1280, height: 800, deviceScaleFactor: 1, disabled: false },
        throttlingMethod: 'provided',
        maxWaitForLoad: loadedMs,
        extraHeaders: { Cookie },
        logLevel: 'error',
      });
      for (const [id, name] of categories) {
        const { score, auditRefs } = lhr.categories[id];
        const value = Math.round((score ?? 0) * percent);
        figures.push({
          id: `LH ${path.replace(/\d+/, 'N')} ${name}`,
          value,
          unit: 'of 100',
          baseline: null,
          ratio: null,
          goal: `≥ ${least}`,
          ok: value >= least,
        });
        const lost = auditRefs.filter((one) => one.weight > 0 && (lhr.audits[one.id].score ?? 1) < 1);
        for (const one of lost) say(`  ${path}: ${lhr.audits[one.id].title}`);
      }
    }
  } finally {
    process.off('unhandledRejection', late);
    await chrome.kill();
    rmSync(userDataDir, { recursive: true, force: true });
  }
  return figures;
}
