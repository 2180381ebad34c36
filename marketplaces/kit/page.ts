import type { Market } from './types';

export const escapeHtml = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** A page in the marketplace's own plain look. */
export function page(market: Pick<Market, 'title' | 'line' | 'look' | 'name'>, title: string, body: string): string {
  const { paper, ink, accent, font, wide } = market.look;
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escapeHtml(title)} – ${market.title}</title><style>
body{margin:0;background:${paper};color:${ink};font:16px/1.5 ${font}}
header{border-bottom:3px solid ${accent};padding:.8rem 1.2rem;display:flex;gap:1rem;align-items:baseline}
header a{font-weight:700;font-size:1.3rem;color:${accent};text-decoration:none}
main{max-width:${wide ? '70rem' : '42rem'};margin:1.5rem auto;padding:0 1rem}
.grid{display:grid;grid-template-columns:repeat(auto-fill,minmax(${wide ? '11rem' : '9rem'},1fr));gap:1rem}
.grid a{color:inherit;text-decoration:none}.grid img{width:100%;aspect-ratio:1;object-fit:cover}
.photos img{max-width:14rem;max-height:14rem;margin:0 .4rem .4rem 0}
.price{font-weight:700}.bad{color:#a00}button{background:${accent};color:${paper};border:0;padding:.5rem .9rem;font:inherit;cursor:pointer}
table{border-collapse:collapse}td,th{padding:.25rem .6rem;border:1px solid #8886;text-align:left;vertical-align:top}
input,select{font:inherit;padding:.3rem}pre{white-space:pre-wrap;font:inherit}
</style></head><body><header><a href="/${market.name}/">${market.title}</a><span>${escapeHtml(market.line)}</span></header><main>${body}</main></body></html>`;
}
