import type { Request, Session } from '../../src/markets/session';

/** A marketplace that remembers what it was told and shows it back. */
export function echo(
  market: string,
  answer: (request: Request) => unknown = () => undefined,
): { session: Session; asked: Request[] } {
  const asked: Request[] = [];
  let kept: Record<string, unknown> = {};
  const shown = () => ({ ...kept, id: '7', state: 'live', link: `http://127.0.0.1/${market}/listing/7` });
  const session: Session = {
    async send(request) {
      asked.push(request);
      const special = answer(request);
      if (special !== undefined) return special;
      if (request.path === '/feeds') {
        const [line] = (request.body as { lines: { offer?: Record<string, unknown> }[] }).lines;
        kept = { ...kept, ...line?.offer };
        return { feed: 'f', state: 'waiting' };
      }
      if (request.path.startsWith('/feeds/')) return { feed: 'f', state: 'done', rows: [{ ok: true, listing: '7' }] };
      if (request.lines) {
        const [{ op: _op, lot: _lot, ...data } = {}] = request.lines as Record<string, unknown>[];
        kept = { ...kept, ...data };
        return [{ ok: true, lot: shown() }];
      }
      if (request.method !== 'GET' && !request.path.endsWith('/end'))
        kept = { ...kept, ...(request.body as Record<string, unknown>) };
      return shown();
    },
  };
  return { session, asked };
}
