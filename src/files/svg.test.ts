import { isSvg, safeSvg, svgPacket } from './svg';

const of = (inner: string, more = '') =>
  Buffer.from(
    `<?xml version="1.0"?><!-- drawn --><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="10" height="10"${more}>${inner}</svg>`,
  );
const safe = (inner: string, more = '') => safeSvg(of(inner, more)).toString();

test('a drawing is known by what it begins with', () => {
  expect(isSvg(of(''))).toBe(true);
  expect(isSvg(Buffer.from('<svg viewBox="0 0 1 1"/>'))).toBe(true);
  expect(isSvg(Buffer.from('<html><svg/></html>'))).toBe(false);
  expect(isSvg(Buffer.from('\x89PNG <svg'))).toBe(false);
});

test.each([
  ['a script', '<script>alert(1)</script>', 'alert'],
  ['what is done on a click', '<rect onclick="alert(1)" width="1" height="1"/>', 'alert'],
  ['a page within', '<foreignObject><body xmlns="http://www.w3.org/1999/xhtml">page</body></foreignObject>', 'page'],
  ['a picture from elsewhere', '<image href="http://elsewhere.example/a.png"/>', 'elsewhere'],
  ['a picture from elsewhere by the old name', '<image xlink:href="file:///etc/passwd"/>', 'passwd'],
  [
    'a style from elsewhere',
    '<style>@import url(http://elsewhere.example/a.css); rect { fill: red }</style>',
    'elsewhere',
  ],
  ['a fill from elsewhere', '<rect fill="url(http://elsewhere.example/a.svg#b)"/>', 'elsewhere'],
  ['a link', '<a href="http://elsewhere.example"><rect/></a>', 'elsewhere'],
  ['an animation', '<rect><animate attributeName="href" to="javascript:alert(1)"/></rect>', 'alert'],
])('%s is left out', (_what, inner, trace) => {
  expect(of(inner).toString()).toContain(trace);
  expect(safe(inner)).not.toContain(trace);
});

test('what draws stays: shapes, gradients, styles, pictures that lie within', () => {
  const inner =
    '<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/></linearGradient></defs><style>.a{fill:url(#g)}</style><rect class="a" fill="url(#g)"/><use href="#g"/><image href="data:image/png;base64,AAAA"/>';
  for (const trace of ['linearGradient', 'url(#g)', 'class="a"', 'href="#g"', 'data:image/png'])
    expect(safe(inner)).toContain(trace);
});

test('what is none is refused, as is what is cut off', () => {
  expect(() => safeSvg(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><rect>'))).toThrow();
  expect(() => safeSvg(Buffer.from('<html xmlns="http://www.w3.org/1999/xhtml"/>'))).toThrow('no drawing');
});

test('what it says of itself is found in its metadata', () => {
  const rdf = '<metadata><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"/></metadata>';
  expect(svgPacket(of(rdf))).toContain('rdf:RDF');
  expect(svgPacket(of('<rect/>'))).toBeNull();
  expect(svgPacket(Buffer.from('<svg'))).toBeNull();
});
