import { mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Hono } from 'hono';
import { html, raw } from 'hono/html';

type Printed = { job: string; title: string; at: string; file: string };

/**
 * A printer of labels that only writes files: a folder with the PDFs that it was given, in their order, a page that shows
 * them, and a switch that takes its paper away. The same job sent twice is printed once.
 */
export function printerRoutes(folder: string): Hono {
  mkdirSync(folder, { recursive: true });
  let isOut = false;
  const app = new Hono();

  const printed = (): Printed[] =>
    readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as Printed) // written below
      .sort((a, b) => (a.at < b.at ? 1 : -1));

  app.post('/api/jobs', async (c) => {
    const job = (c.req.header('x-job') ?? '').replace(/[^A-Za-z0-9-]/g, '').slice(0, 60);
    if (!job) return c.json({ title: 'A job needs a number' }, 422);
    const file = `${job}.pdf`;
    if (printed().some((one) => one.job === job)) return c.json({ job }, 200);
    if (isOut) return c.json({ title: 'Out of labels' }, 503);
    const bytes = Buffer.from(await c.req.arrayBuffer());
    if (bytes.subarray(0, 5).toString() !== '%PDF-') return c.json({ title: 'That is no PDF' }, 422);
    // The file is there whole, or not at all.
    writeFileSync(join(folder, `${file}.part`), bytes);
    renameSync(join(folder, `${file}.part`), join(folder, file));
    const title = decodeURIComponent(c.req.header('x-title') ?? '').slice(0, 200);
    const one: Printed = { job, title, at: new Date().toISOString(), file };
    writeFileSync(join(folder, `${job}.json`), JSON.stringify(one));
    return c.json({ job }, 201);
  });
  app.get('/api/jobs', (c) => c.json({ isOut, printed: printed().slice(0, 200) }));
  app.post('/api/paper', async (c) => {
    const body = (await c.req.json().catch(() => ({}))) as { isOut?: unknown };
    isOut = body.isOut === true;
    return c.json({ isOut });
  });
  app.post('/paper', async (c) => {
    isOut = (await c.req.parseBody()).isOut === 'yes';
    return c.redirect('/printer');
  });
  app.get('/files/:name', (c) => {
    const name = c.req.param('name');
    if (!/^[A-Za-z0-9-]+\.pdf$/.test(name)) return c.notFound();
    try {
      return c.body(new Uint8Array(readFileSync(join(folder, name))), 200, { 'content-type': 'application/pdf' });
    } catch {
      return c.notFound();
    }
  });
  app.get('/', (c) =>
    c.html(html`<!doctype html>
      <title>Label printer</title>
      <meta name="viewport" content="width=device-width" />
      <style>
        body { font: 16px/1.5 sans-serif; max-width: 40rem; margin: 2rem auto; padding: 0 1rem; }
        li { margin: 0.3rem 0; }
      </style>
      <h1>Label printer</h1>
      <p>${isOut ? 'The roll is empty: nothing is printed.' : 'Ready.'}</p>
      <form method="post" action="/printer/paper">
        <button name="isOut" value="${isOut ? 'no' : 'yes'}">${isOut ? 'Put a new roll in' : 'Take the roll out'}</button>
      </form>
      <h2>Printed</h2>
      <ol reversed>
        ${raw(
          printed()
            .slice(0, 100)
            .map((one) => {
              const name = one.title.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
              const size = statSync(join(folder, one.file)).size;
              return `<li><a href="/printer/files/${one.file}">${name || one.job}</a>, ${one.at.slice(11, 19)}, ${size} bytes</li>`;
            })
            .join(''),
        )}
      </ol>`),
  );
  return app;
}
