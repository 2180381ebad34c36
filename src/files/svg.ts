import { elements, readXml, textIn, writeXml, type XmlAttribute, type XmlNode } from './xmp/tree';

const svg = 'http://www.w3.org/2000/svg';

/** Elements that draw; whatever else stands in a drawing (scripts, pages, what moves or leads elsewhere) is left out. */
const drawing = new Set(
  (
    'svg g defs symbol use path rect circle ellipse line polyline polygon text tspan textPath title desc style image ' +
    'linearGradient radialGradient stop clipPath mask pattern marker filter feGaussianBlur feOffset feBlend ' +
    'feColorMatrix feMerge feMergeNode feFlood feComposite feTurbulence feDisplacementMap feMorphology ' +
    'feComponentTransfer feFuncR feFuncG feFuncB feFuncA'
  ).split(' '),
);

/** Rules of style without what is fetched from elsewhere. */
const safeStyle = (text: string): string =>
  text.replace(/@import[^;]*;?/gi, '').replace(/url\(\s*(['"]?)(?!#)[^)]*\)/gi, 'none');

function safeAttribute(one: XmlAttribute): XmlAttribute[] {
  if (/^on/i.test(one.local)) return [];
  if (one.local === 'href') return /^(#|data:image\/(png|jpeg);base64,)/.test(one.value.trim()) ? [one] : [];
  return [{ ...one, value: safeStyle(one.value) }];
}

const safeNode = (node: XmlNode): XmlNode[] =>
  node.uri === svg && drawing.has(node.local)
    ? [
        {
          ...node,
          attributes: node.attributes.flatMap(safeAttribute),
          children:
            node.local === 'style'
              ? [safeStyle(textIn(node))]
              : node.children.flatMap((one): XmlNode['children'] => (typeof one === 'string' ? [one] : safeNode(one))),
        },
      ]
    : [];

/** Whether a file is a drawing of lines, by what it begins with. */
export const isSvg = (bytes: Buffer): boolean =>
  /^[\ufeff\s]*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*(<!DOCTYPE\s+svg[^>]*>\s*)?<svg[\s>]/.test(
    bytes.subarray(0, 8_192).toString('utf8'),
  );

/**
 * A drawing of lines with what draws alone: no scripts, nothing that is fetched from elsewhere.
 * @throws where it is no XML, or no drawing
 */
export function safeSvg(bytes: Buffer): Buffer {
  const [root] = safeNode(readXml(bytes.toString('utf8')));
  if (root?.local !== 'svg') throw new Error('There is no drawing in it');
  return Buffer.from(writeXml(root));
}

/** The packet of metadata that a drawing holds; null where it holds none. */
export function svgPacket(bytes: Buffer): string | null {
  const find = (node: XmlNode): XmlNode | null =>
    node.local === 'RDF' || node.local === 'xmpmeta'
      ? node
      : elements(node).reduce<XmlNode | null>((found, one) => found ?? find(one), null);
  try {
    const found = find(readXml(bytes.toString('utf8')));
    return found ? writeXml(found) : null;
  } catch {
    return null;
  }
}
