import { LIMITS } from '../../contracts';
import { XMLParser } from 'fast-xml-parser';
import { accepted, refused, type Outcome, type Problem } from '../../shared';

export type XmlNode = Record<string, unknown> & { ':@'?: Record<string, string> };

/**
 * The children of a score (partwise), in order. Entities and deep or huge documents are refused before they
 * are read.
 */
export function parseScore(xml: string): Outcome<readonly XmlNode[]> {
  const hostile = refuseHostile(xml);
  if (hostile) return refused(hostile);
  let tree: XmlNode[];
  try {
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      trimValues: true,
      parseTagValue: false,
      parseAttributeValue: false,
      processEntities: true,
    }).parse(xml, true) as XmlNode[];
  } catch (error) {
    return refused({
      code: 'musicxml.unreadable',
      message: `This is not well-formed XML: ${(error as Error).message}`,
    });
  }
  const score = tree.find((node) => 'score-partwise' in node);
  return score
    ? accepted(childrenOf(score))
    : refused({
        code: 'musicxml.root',
        message: 'This is not a partwise MusicXML score.',
        suggestion: 'Export it as uncompressed MusicXML, by parts.',
      });
}

function refuseHostile(xml: string): Problem | null {
  if (xml.length > LIMITS.musicxml.characters)
    return {
      code: 'musicxml.too-large',
      message: `This file is ${Math.round(xml.length / 1e6)} million characters long; ${LIMITS.musicxml.characters / 1e6} million are the most.`,
    };
  if (xml.startsWith('PK'))
    return {
      code: 'musicxml.compressed',
      message: 'This is a compressed score.',
      suggestion: 'Unpack it, or export it as uncompressed MusicXML.',
    };
  if (/<!ENTITY|<!ELEMENT|<!ATTLIST|<!DOCTYPE[^>]*\[/i.test(xml))
    return {
      code: 'musicxml.entities',
      message: 'This file defines its own entities; a score needs none.',
      suggestion: 'Export it again from the program that made it.',
    };
  let depth = 0;
  for (const found of xml.matchAll(/<(\/)?[A-Za-z][^<>]*?(\/)?>/g)) {
    depth += depthStep(found);
    if (depth > LIMITS.musicxml.depth)
      return {
        code: 'musicxml.deep',
        message: `This file nests deeper than ${LIMITS.musicxml.depth} elements; a score does not.`,
      };
  }
  return null;
}

/** The measures of every part, each as its children. */
export const partsOf = (score: readonly XmlNode[]): (readonly XmlNode[])[][] =>
  all(score, 'part').map((measures) => measures.map(childrenOf));

export const nameOf = (node: XmlNode): string => Object.keys(node).find((key) => key !== ':@') ?? '';
export const childrenOf = (node: XmlNode): readonly XmlNode[] =>
  Array.isArray(node[nameOf(node)]) ? (node[nameOf(node)] as XmlNode[]) : [];
export const all = (nodes: readonly XmlNode[], name: string): (readonly XmlNode[])[] =>
  nodes.filter((node) => name in node).map(childrenOf);
export const first = (nodes: readonly XmlNode[], name: string): readonly XmlNode[] | null =>
  all(nodes, name)[0] ?? null;
export const textOf = (nodes: readonly XmlNode[] | null): string =>
  (nodes ?? [])
    .map((node) => String(node['#text'] ?? ''))
    .join('')
    .trim();
export const textAt = (nodes: readonly XmlNode[], ...path: string[]): string => {
  let at: readonly XmlNode[] | null = nodes;
  for (const name of path) at = at ? first(at, name) : null;
  return textOf(at);
};
export const attribute = (node: XmlNode, name: string): string => String(node[':@']?.[name] ?? '');

function depthStep(found: RegExpExecArray) {
  if (found[1]) return -1;
  if (found[2]) return 0;
  return 1;
}
