import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { crc32, deflateSync, gzipSync } from 'node:zlib';
import sharp from 'sharp';
import { ZipFile } from 'yazl';
import { memoryOf } from '../support/memory.mjs';

const mega = 1_000_000;
/** The application may grow by so much while it is attacked, in megabytes. */
const mostGrowth = 700;
/** So long one file may take. */
const patienceMs = 90_000;

/** A ZIP of these files. */
function zipOf(files) {
  const zip = new ZipFile();
  for (const [name, contents] of Object.entries(files)) zip.addBuffer(Buffer.from(contents), name);
  zip.end();
  return buffer(zip.outputStream);
}

/** A chunk of a PNG: length, name, contents, check sum. */
function chunk(name, contents) {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), contents]);
  const length = Buffer.alloc(4);
  length.writeUInt32BE(contents.length);
  const sum = Buffer.alloc(4);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
}

/** A PNG of few bytes that claims to be 60,000 pixels wide and high. */
function enormous() {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(60_000, 0);
  head.writeUInt32BE(60_000, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const magic = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    magic,
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(10_000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A head of a picture with noise behind it may be one: decoders draw what they find. It is taken or refused, with a word. */
const either = 'head-of-a-picture.jpg';

/** Pictures that are none, or too much. */
async function pictures(random) {
  const whole = await sharp({ create: { width: 1_200, height: 900, channels: 3, background: '#7a6a55' } })
    .jpeg()
    .toBuffer();
  const noise = Buffer.from(Array.from({ length: 40_000 }, () => Math.floor(random() * 256)));
  return [
    ['cut.jpg', whole.subarray(0, Math.floor(whole.length * (0.2 + random() * 0.7)))],
    ['noise.jpg', noise],
    [either, Buffer.concat([whole.subarray(0, 600), noise])],
    ['empty.png', Buffer.alloc(0)],
    ['words.webp', Buffer.from('no picture at all')],
    ['enormous.png', enormous()],
    [
      'script.svg',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"><script>alert(1)</script></svg>'),
    ],
    ['heavy.jpg', Buffer.alloc(31 * mega, 0xff)],
    ['page.jpg', Buffer.from('<html><script>alert(1)</script></html>')],
    ['../../../etc/passwd.jpg', Buffer.from('root:x:0:0')],
  ];
}

/** Tables that are none, or too much. */
async function tables() {
  const laughs = [
    '<?xml version="1.0"?><!DOCTYPE items [<!ENTITY a "aaaaaaaaaa">',
    ...Array.from({ length: 9 }, (_, at) => `<!ENTITY ${'bcdefghij'[at]} "${`&${'abcdefghi'[at]};`.repeat(10)}">`),
    ']><items><item><sku>&j;</sku></item></items>',
  ].join('');
  const outside =
    '<?xml version="1.0"?><!DOCTYPE items [<!ENTITY x SYSTEM "file:///etc/passwd">]><items><item><sku>&x;</sku></item></items>';
  const zeros = Buffer.alloc(400 * mega, 'a');
  const sheet = '<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>';
  return [
    ['open-quote.csv', `Stock number,Title\n"A-1,never closed${'\nx,y'.repeat(200_000)}`],
    ['one-line.csv', `Stock number,Title\nA-1,${'x'.repeat(20 * mega)}`],
    ['columns.csv', `${Array.from({ length: 30_000 }, (_, at) => `c${at}`).join(',')}\n1,2`],
    ['nul.csv', Buffer.from('Stock number,Title\n\u0000\u0000,\u0000\n')],
    [
      'formulas.csv',
      'Stock number,Title\nR6-F,"=HYPERLINK(""http://127.0.0.1/"",""x"")"\nR6-G,@SUM(1+1)*cmd|\' /C calc\'!A0',
    ],
    ['deep.json', `${'['.repeat(200_000)}${']'.repeat(200_000)}`],
    ['half.json', '[{"sku":"A-1","title":"x"},{"sku":'],
    ['polluting.json', '[{"__proto__":{"isAdmin":true},"sku":"R6-P","constructor":{"prototype":{"x":1}}}]'],
    ['lines.ndjson', '{"sku":"A-1"}\nnot json\n{"sku":"A-2"}'],
    ['laughs.xml', laughs],
    ['outside.xml', outside],
    ['half.xml', '<items><item><sku>A-1</sku>'],
    ['named.xlsx', 'Stock number,Title\nA-1,a table that calls itself a workbook'],
    ['half.xlsx', (await zipOf({ 'xl/worksheets/sheet1.xml': sheet })).subarray(0, 120)],
    [
      'bomb.xlsx',
      await zipOf({
        '[Content_Types].xml': '<Types/>',
        'xl/workbook.xml': '<workbook/>',
        'xl/worksheets/sheet1.xml': zeros,
      }),
    ],
    ['bomb.zip', await zipOf({ 'items.csv': zeros })],
    ['bomb.csv.gz', gzipSync(zeros)],
    ['paths.zip', await zipOf({ 'items.csv': 'Stock number,Photos\nR6-Z,../../../../etc/passwd\n' })],
    [
      'paper.csv',
      `%PDF-1.7\n1 0 obj<</Type/Catalog/OpenAction<</S/JavaScript/JS(app.alert(1))>>>>endobj\n${'\u0001'.repeat(3_000)}`,
    ],
    ['noise.csv', Buffer.from(Array.from({ length: 200_000 }, (_, at) => (at * 7919) % 256))],
  ];
}

/** A picture that is a page and an archive as well: it is a picture, and nothing else of it reaches a browser. */
async function twoThings(send, settings, token, trouble) {
  const picture = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#7a4a55' } })
    .jpeg()
    .toBuffer();
  const page = Buffer.from('<html><script>alert(1)</script></html>');
  const { status, body } = await send(
    '/photos',
    Buffer.concat([picture, page, await zipOf({ 'a.txt': 'x' })]),
    'two.jpg',
  );
  if (status !== 201) return trouble.push(`a picture with a page behind it was answered with ${status}`);
  for (const size of ['view', 'market', 'original']) {
    const answer = await fetch(`http://127.0.0.1:${settings.port}/api/photos/${body.hash}-${size}`, {
      headers: { authorization: `Bearer ${token}` },
    });
    const bytes = Buffer.from(await answer.arrayBuffer());
    const isWhole = size === 'original';
    if (!answer.ok || bytes.length === 0) trouble.push(`its ${size} was answered with ${answer.status}`);
    if (!isWhole && bytes.includes('<script>')) trouble.push(`a page is in its ${size}`);
    if (isWhole && answer.headers.get('content-disposition') !== 'attachment')
      trouble.push('its original may be opened');
    if (answer.headers.get('x-content-type-options') !== 'nosniff') trouble.push(`its ${size} may be taken for a page`);
  }
}

/**
 * R6: files that are cut off, huge, wrongly named and hostile, as photos, dropped, and as tables. Each is answered with a
 * word, the application does not grow without bound, and a good file after each of them is taken.
 */
export async function hostileFiles({ processes, settings, call, random, probe = null }) {
  const token = readFileSync(join(settings.dataFolder, 'demo-api-token'), 'utf8').trim();
  const base = `http://127.0.0.1:${settings.port}/api/v1`;
  const send = async (path, bytes, name, method = 'POST') => {
    const answer = await fetch(`${base}${path}`, {
      method,
      headers: {
        authorization: `Bearer ${token}`,
        'content-type': 'application/octet-stream',
        'x-file-name': encodeURIComponent(name),
      },
      body: Buffer.from(bytes),
      signal: AbortSignal.timeout(patienceMs),
    }).catch((error) => ({ status: 0, json: async () => ({ title: String(error) }) }));
    return { status: answer.status, body: await answer.json().catch(() => ({})) };
  };
  const trouble = [];
  const items = (await call('GET', '/items?limit=1')).body.total;
  const before = memoryOf(processes.pid('web'));
  let most = before;
  const watch = setInterval(() => {
    most = Math.max(most, memoryOf(processes.pid('web')));
  }, 100);
  const expectWord = (what, { status, body }) => {
    if (status === 0 || status >= 500 || (status >= 400 && !body.title))
      trouble.push(`${what}: ${status} ${JSON.stringify(body).slice(0, 160)}`);
  };
  let files = 0;
  let slowest = { name: 'nothing', ms: 0 };
  /** How long others waited while a file was looked at. */
  const waited = (name) => {
    const ms = probe?.since() ?? 0;
    if (ms > slowest.ms) slowest = { name, ms };
    probe?.mark();
  };
  let good = 0;
  const goodPhoto = async () => {
    const bytes = await sharp({ create: { width: 700 + good++, height: 500, channels: 3, background: '#446688' } })
      .jpeg()
      .toBuffer();
    const { status } = await send('/photos', bytes, 'good.jpg');
    if (status !== 201) trouble.push(`a good photo was answered with ${status}`);
  };
  try {
    const shown = await pictures(random);
    await probe?.fresh();
    for (const [name, bytes] of shown) {
      files++;
      const answer = await send('/photos', bytes, name);
      expectWord(name, answer);
      if (answer.status < 400 && name !== either) trouble.push(`${name} was taken for a photo`);
      waited(name);
      await goodPhoto();
    }
    await twoThings(send, settings, token, trouble);
    files++;
    const all = [
      ...(await pictures(random)),
      ['bomb.zip', await zipOf({ 'a.jpg': Buffer.alloc(300 * mega), 'b.txt': 'x' })],
    ];
    await probe?.fresh();
    const { body: drop } = await call('POST', '/photo-drops', {
      files: all.map(([path, bytes]) => ({ path, bytes: bytes.length })),
    });
    for (const { id, path } of drop.wanted) {
      files++;
      expectWord(
        `dropped ${path}`,
        await send(`/photo-drops/${drop.drop}/files/${id}`, all.find(([name]) => name === path)[1], path, 'PUT'),
      );
    }
    const { counts } = (await call('GET', `/photo-drops/${drop.drop}`)).body;
    if (counts.tied + counts.untied + counts.added > 1) trouble.push(`of a drop ${JSON.stringify(counts)}`);
    await goodPhoto();
    waited('a drop');
    // What is made here keeps this very process busy: nobody is asked meanwhile.
    const made = await tables();
    await probe?.fresh();
    for (const [name, bytes] of made) {
      files++;
      const answer = await send('/imports', bytes, name);
      expectWord(name, answer);
      if (answer.status < 300 && answer.body.id) {
        const { body } = await call('GET', `/imports/${answer.body.id}`);
        if (JSON.stringify(body).includes('root:x:0')) trouble.push(`${name} read a file of the machine`);
      }
      waited(name);
      const { status } = await send('/imports', `Stock number,Title\nR6-${files},Good`, 'good.csv');
      if (status >= 300) trouble.push(`after ${name} a good table was answered with ${status}`);
    }
  } finally {
    clearInterval(watch);
  }
  const after = (await call('GET', '/items?limit=1')).body.total;
  if (after !== items) trouble.push(`${items} items before, ${after} afterwards`);
  const growth = most - before;
  if (growth > mostGrowth) trouble.push(`the application grew by ${Math.round(growth)} MB`);
  if (probe) waited('the rest');
  if (slowest.ms > 1_000)
    trouble.push(`others waited ${Math.round(slowest.ms)} ms while ${slowest.name} was looked at`);
  return {
    id: 'R6 hostile files',
    ok: trouble.length === 0,
    text: `${files} files, each with a good one after it; the application grew by ${Math.round(growth)} MB at most (${Math.round(before)} before)${trouble.map((one) => `\n       ${one}`).join('')}`,
  };
}
