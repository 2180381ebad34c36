import { SaxesParser } from 'saxes';

export type XmlAttribute = { name: string; uri: string; local: string; value: string };
/** An element of an XML document as it is written, with what its names mean. */
export type XmlNode = {
  name: string;
  uri: string;
  local: string;
  attributes: XmlAttribute[];
  children: (XmlNode | string)[];
};

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** Reads a document into its root; throws where it is not well formed. Instructions and comments are left aside. */
export function readXml(text: string): XmlNode {
  const parser = new SaxesParser({ xmlns: true });
  const open: XmlNode[] = [];
  let root: XmlNode | null = null;
  parser.on('opentag', ({ name, uri, local, attributes }) => {
    const node: XmlNode = {
      name,
      uri,
      local,
      attributes: Object.values(attributes).map((one) => ({
        name: one.name,
        uri: one.uri,
        local: one.local,
        value: one.value,
      })),
      children: [],
    };
    open.at(-1)?.children.push(node);
    root ??= node;
    open.push(node);
  });
  parser.on('closetag', () => {
    open.pop();
  });
  const say = (said: string) => {
    open.at(-1)?.children.push(said);
  };
  parser.on('text', say);
  parser.on('cdata', say);
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(text).close();
  if (!root) throw new Error('There is no element in it');
  return root;
}

/** The way back. */
export function writeXml(node: XmlNode | string): string {
  if (typeof node === 'string') return escaped(node);
  const attributes = node.attributes.map(({ name, value }) => ` ${name}="${escaped(value)}"`).join('');
  const inside = node.children.map(writeXml).join('');
  return inside ? `<${node.name}${attributes}>${inside}</${node.name}>` : `<${node.name}${attributes}/>`;
}

/** What an element says in words. */
export const textIn = (node: XmlNode): string =>
  node.children.map((one) => (typeof one === 'string' ? one : textIn(one))).join('');

export const elements = (node: XmlNode): XmlNode[] =>
  node.children.flatMap((one) => (typeof one === 'string' ? [] : [one]));
