/** A score as XML: read in safety, its elements found by their names. */
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { NotReadable } from '../not-readable';

/** An element as the parser gives it: its name with its children, and its attributes. */
export type Node = Readonly<Record<string, unknown>>;
const ATTRIBUTES = ':@';
const TEXT = '#text';

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: false,
  processEntities: true,
  htmlEntities: false,
  maxNestedTags: 60
});

/** The name of an element. */
export const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ATTRIBUTES) ?? '';
/** What stands inside an element, in its order. */
export const childrenOf = (node: Node): readonly Node[] => {
  const inside = node[nameOf(node)];
  return Array.isArray(inside) ? (inside as Node[]) : [];
};
/** The elements of a name directly inside one. */
export const all = (node: Node, name: string): readonly Node[] =>
  childrenOf(node).filter((child) => nameOf(child) === name);
/** The first element along a path of names; undefined where there is none. */
export const one = (node: Node | undefined, ...path: readonly string[]): Node | undefined =>
  path.reduce<Node | undefined>((at, name) => (at ? all(at, name)[0] : undefined), node);
/** An attribute of an element; empty where it has none of that name. */
export const attribute = (node: Node, name: string): string => {
  const attributes = node[ATTRIBUTES] as Readonly<Record<string, unknown>> | undefined;
  const value = attributes?.[name];
  return typeof value === 'string' ? value : '';
};
/** The text of an element, without the space around it. */
export const textOf = (node: Node | undefined): string =>
  node
    ? childrenOf(node)
        .map((child) => (TEXT in child ? String(child[TEXT]) : ''))
        .join('')
    : '';
/** The text at the end of a path of names; empty where there is none. */
export const said = (node: Node | undefined, ...path: readonly string[]): string =>
  textOf(one(node, ...path)).trim();
/** The number at the end of a path of names; null where there is none. */
export const numberAt = (node: Node | undefined, ...path: readonly string[]): number | null => {
  const text = said(node, ...path);
  const value = text === '' ? NaN : Number(text);
  return Number.isFinite(value) ? value : null;
};

/** The score of a file, sorted by parts. Throws `NotReadable` where it is none. */
export function scoreIn(text: string): Node {
  // Entities of one's own can be made to grow without end; no score needs them.
  if (/<!ENTITY/i.test(text)) {
    throw new NotReadable('This XML file defines entities of its own, which are not read for safety.');
  }
  let nodes: readonly Node[];
  try {
    if (XMLValidator.validate(text) !== true) throw new NotReadable();
    nodes = parser.parse(text) as Node[];
  } catch {
    throw new NotReadable('This is no XML that can be read; the file may be cut off.');
  }
  const score = nodes.find((node) => nameOf(node) === 'score-partwise');
  if (score) return score;
  const timewise = nodes.find((node) => nameOf(node) === 'score-timewise');
  if (timewise) return sortedByParts(timewise);
  throw new NotReadable('This XML file is no MusicXML score.');
}

/** A score that is sorted by time, its bars gathered part by part. */
function sortedByParts(score: Node): Node {
  const parts = new Map<string, Node[]>();
  for (const measure of all(score, 'measure')) {
    for (const part of all(measure, 'part')) {
      const id = attribute(part, 'id');
      const bar: Node = { measure: childrenOf(part), [ATTRIBUTES]: measure[ATTRIBUTES] };
      parts.set(id, [...(parts.get(id) ?? []), bar]);
    }
  }
  const others = childrenOf(score).filter((child) => nameOf(child) !== 'measure');
  const gathered = [...parts].map(([id, bars]): Node => ({ part: bars, [ATTRIBUTES]: { id } }));
  return { 'score-partwise': [...others, ...gathered] };
}
