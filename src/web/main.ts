import { createServer } from 'node:http';
import next from 'next';
import pino from 'pino';
import { config } from '../config';
import { headersOf } from './headers';
import { askedBy, keepBelieved, readTrusted } from './trusted';

const log = pino({ name: 'web' });
const port = Number(process.argv[2] ?? config.port);
const host = process.argv[3] ?? config.host;
const isTrusted = readTrusted(process.env.NETTING_TRUSTED_PROXIES ?? '');
/** How long what is under way has to end, in milliseconds. */
const patienceMs = 8_000;

const app = next({ dev: false, dir: process.cwd(), hostname: host, port });
await app.prepare();
const answer = app.getRequestHandler();

const server = createServer(
  {
    // A head in drops is let go; a large file over a slow line has its time.
    headersTimeout: 15_000,
    requestTimeout: 15 * 60_000,
    connectionsCheckingInterval: 2_000,
    keepAliveTimeout: 70_000,
    maxHeaderSize: 16_384,
  },
  (request, response) => {
    const asked = askedBy(request.socket.remoteAddress ?? '', request.headers, isTrusted);
    keepBelieved(request.headers, asked);
    const [path = '/'] = (request.url ?? '/').split('?', 1);
    for (const [name, value] of Object.entries(headersOf(path, asked.scheme))) response.setHeader(name, value);
    void answer(request, response).catch((error) => {
      log.error({ error: String(error) }, 'a request');
      response.destroy();
    });
  },
);
server.listen(port, host, () => log.info({ port, host }, 'ready'));
server.on('error', (error) => {
  log.error({ error: error.message }, 'not started');
  process.exit(1);
});

let stopping = false;
/** No new connections; what was begun is answered; live pages, which never end, are cut. */
function stop(): void {
  if (stopping) return;
  stopping = true;
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), patienceMs).unref();
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
