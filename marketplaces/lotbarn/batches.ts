import type { Hono } from 'hono';
import { dataOf, textOf } from '../kit/checks';
import type { Tools } from '../kit/routes';
import type { Data, Json, SellerEnv } from '../kit/types';

const most = 1_500;
const safe = 1_200;

const parse = (line: string): Data => {
  try {
    return dataOf(JSON.parse(line) as Json);
  } catch {
    return {};
  }
};

/** Changes come as lines of JSON, are worked off slowly, and big batches break off in the middle without an answer. */
export function batchRoutes(app: Hono<SellerEnv>, { market, listings, shown }: Tools): void {
  app.post('/batches', async (c) => {
    const lines = (await c.req.text()).split('\n').filter((line) => line.trim() !== '');
    if (lines.length < 1 || lines.length > most) return c.text(`A batch holds 1 to ${most} lines.`, 422);
    const origin = new URL(c.req.url).origin;
    const answers: Data[] = [];
    for (const [index, line] of lines.entries()) {
      if (index >= safe) return c.text('This took too long.', 504);
      if (index % 20 === 19) await new Promise((resolve) => setTimeout(resolve, 10));
      const { op, lot, ...data } = parse(line);
      const outcome =
        op === 'add'
          ? await listings.create(c.get('seller'), data)
          : op === 'change' && textOf(lot)
            ? await listings.change(c.get('seller'), textOf(lot), data)
            : op === 'remove' && textOf(lot)
              ? await listings.end(c.get('seller'), textOf(lot))
              : null;
      const row = { line: index + 1, reference: textOf(data.reference) };
      if (outcome?.listing) answers.push({ ...row, ok: true, lot: shown(outcome.listing, origin) });
      else {
        const {
          status = 422,
          title = 'A line needs an operation, and a change its lot.',
          problems = [],
          headers = {},
        } = outcome?.refusal ?? {};
        answers.push({
          ...row,
          ok: false,
          status,
          sentence: title,
          problems,
          retryAfter: headers['retry-after'] ?? null,
        });
      }
    }
    return c.body(`${answers.map((answer) => JSON.stringify(answer)).join('\n')}\n`, 200, {
      'content-type': 'application/x-ndjson',
      'x-market': market.name,
    });
  });
}
