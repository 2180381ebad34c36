import { type ArtworkDetails, noDetails } from '../../core/artwork';
import { elements, readXml, textIn, writeXml, type XmlNode } from './tree';

/** Source: ISO 16684-1 (XMP) and Dublin Core 1.1; audience as in DCMI terms; grounds are our own. */
const rdf = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
const meta = 'adobe:ns:meta/';
const xmlNames = 'http://www.w3.org/XML/1998/namespace';
const spaces = {
  dc: 'http://purl.org/dc/elements/1.1/',
  dcterms: 'http://purl.org/dc/terms/',
  net: 'urn:netting:artwork:1.0',
} as const;
type Prefix = keyof typeof spaces;

const ours: [Prefix, string, keyof ArtworkDetails][] = [
  ['dc', 'title', 'title'],
  ['dc', 'description', 'description'],
  ['dc', 'subject', 'tags'],
  ['dcterms', 'audience', 'audience'],
  ['net', 'grounds', 'grounds'],
];
const isOurs = (one: { uri: string; local: string }): boolean =>
  ours.some(([prefix, local]) => spaces[prefix] === one.uri && local === one.local);

/** A description that says nothing: names for prefixes, and what it is about. */
const isEmpty = (one: XmlNode): boolean =>
  one.uri === rdf &&
  one.local === 'Description' &&
  elements(one).length === 0 &&
  one.attributes.every(({ name, uri }) => name.startsWith('xmlns') || uri === rdf);

const begin = '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>';
const end = '<?xpacket end="w"?>';

/** The part that is XML; what stands around it belongs to the packet. */
const bare = (packet: string): string =>
  packet.replace(/<\?xpacket[^>]*\?>/g, '').replace(/^[\ufeff\s]+|[\0\s]+$/g, '');

const descriptionsOf = (root: XmlNode): XmlNode[] => {
  const isRdf = root.uri === rdf && root.local === 'RDF';
  const rdfs = isRdf ? [root] : elements(root).filter((one) => one.uri === rdf && one.local === 'RDF');
  return rdfs.flatMap(elements).filter((one) => one.uri === rdf && one.local === 'Description');
};

/** The values of a property: of a list each, of a choice of languages the one that is meant for everybody. */
function valuesOf(node: XmlNode): string[] {
  const list = elements(node).find((one) => one.uri === rdf && ['Bag', 'Seq', 'Alt'].includes(one.local));
  if (!list) return [textIn(node)];
  const entries = elements(list);
  if (list.local !== 'Alt') return entries.map(textIn);
  const isDefault = (one: XmlNode) =>
    one.attributes.some(({ name, value }) => name === 'xml:lang' && value === 'x-default');
  const first = entries.find(isDefault) ?? entries[0];
  return first ? [textIn(first)] : [];
}

/**
 * What a packet of metadata says of a picture.
 * @throws where it is no XML
 */
export function readPacket(packet: string): ArtworkDetails {
  const found: ArtworkDetails = { ...noDetails };
  for (const description of descriptionsOf(readXml(bare(packet))))
    for (const [prefix, local, field] of ours) {
      const attribute = description.attributes.find((one) => one.uri === spaces[prefix] && one.local === local);
      const node = elements(description).find((one) => one.uri === spaces[prefix] && one.local === local);
      const values = (node ? valuesOf(node) : attribute ? [attribute.value] : []).map((one) => one.trim());
      if (values.length === 0) continue;
      if (field === 'tags' || field === 'grounds') found[field] = values.filter(Boolean);
      else found[field] = values[0] ?? '';
    }
  return found;
}

const node = (
  name: string,
  uri: string,
  attributes: XmlNode['attributes'],
  children: XmlNode['children'],
): XmlNode => ({
  name,
  uri,
  local: name.split(':')[1] ?? name,
  attributes,
  children,
});
const attribute = (name: string, uri: string, value: string) => ({
  name,
  uri,
  local: name.split(':')[1] ?? name,
  value,
});

function propertyOf(prefix: Prefix, local: string, value: string | string[]): XmlNode | null {
  if (value.length === 0) return null;
  const li = (text: string, attributes: XmlNode['attributes'] = []) => node('rdf:li', rdf, attributes, [text]);
  const list = Array.isArray(value)
    ? node(
        'rdf:Bag',
        rdf,
        [],
        value.map((one) => li(one)),
      )
    : node('rdf:Alt', rdf, [], [li(value, [attribute('xml:lang', xmlNames, 'x-default')])]);
  return node(`${prefix}:${local}`, spaces[prefix], [], [list]);
}

const xmlns = 'http://www.w3.org/2000/xmlns/';

/** A description of ours alone, with all names that it needs. */
function descriptionOf(details: ArtworkDetails): XmlNode {
  const properties = ours.flatMap(([prefix, local, field]) => propertyOf(prefix, local, details[field]) ?? []);
  return node(
    'rdf:Description',
    rdf,
    [
      attribute('xmlns:rdf', xmlns, rdf),
      attribute('rdf:about', rdf, ''),
      ...Object.entries(spaces).map(([prefix, uri]) => attribute(`xmlns:${prefix}`, xmlns, uri)),
    ],
    properties,
  );
}

/**
 * A packet that says these details; whatever else stood in the one before stands in it still.
 * @param before the packet that the file has, if any
 * @throws where that is no XML: it is not written over
 */
export function writePacket(details: ArtworkDetails, before: string | null): string {
  const root = before === null ? null : readXml(bare(before));
  const whole =
    root ??
    node(
      'x:xmpmeta',
      meta,
      [attribute('xmlns:x', xmlns, meta)],
      [node('rdf:RDF', rdf, [attribute('xmlns:rdf', xmlns, rdf)], [])],
    );
  for (const description of descriptionsOf(whole)) {
    description.attributes = description.attributes.filter((one) => !isOurs(one));
    description.children = description.children.filter((one) => typeof one === 'string' || !isOurs(one));
  }
  const holder =
    whole.uri === rdf && whole.local === 'RDF'
      ? whole
      : elements(whole).find((one) => one.uri === rdf && one.local === 'RDF');
  if (!holder) throw new Error('There is no RDF in it');
  // What holds nothing any more was ours.
  holder.children = holder.children.filter((one) => typeof one === 'string' || !isEmpty(one));
  holder.children.push(descriptionOf(details));
  return `${begin}${writeXml(whole)}${end}`;
}
