/** A small XML tree that remembers where everything stands in the source text. */
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { fail, ok, type Result } from '../../result';
import type { ImportError } from '../importError';
import { LIMITS } from '../limits';
import { Refusal, tooMuch } from './refusal';

export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  /** Character data directly inside, joined. */
  readonly text: string;
  /** Offsets into the source text: `<`, after the start tag's `>`, `<` of the end tag, after its `>`. */
  readonly start: number;
  readonly openEnd: number;
  readonly closeStart: number;
  readonly end: number;
  readonly selfClosing: boolean;
  readonly line: number;
}

type Growing = { -readonly [K in keyof XmlElement]: XmlElement[K] } & { children: Growing[] };

/**
 * Parses a document. Entities of a DOCTYPE are refused, not expanded: no score needs them, and they are the
 * usual way to make a small file large or to read another file.
 */
export function parseXml(source: string): Result<XmlElement, ImportError> {
  const parser = new SaxesParser<{ position: true; xmlns: false }>({ position: true, xmlns: false });
  const open: Growing[] = [];
  let root: Growing | null = null;
  let problem: ImportError | null = null;
  const report = (error: ImportError) => (problem ??= error);

  parser.on('error', (error) =>
    report({ code: 'notXml', line: parser.line, detail: plainReason(error.message) }),
  );
  parser.on('doctype', (text) => {
    if (/<!ENTITY/i.test(text)) report({ code: 'entities', line: parser.line });
  });
  let count = 0;
  parser.on('opentag', (tag: SaxesTagPlain) => {
    if (++count > LIMITS.elements) throw new Refusal(tooMuch('elements'));
    if (open.length >= LIMITS.depth) throw new Refusal(tooMuch('depth'));
    const openEnd = parser.position;
    const start = source.lastIndexOf('<' + tag.name, openEnd - 1);
    const element: Growing = {
      name: tag.name,
      attributes: tag.attributes,
      children: [],
      text: '',
      start,
      openEnd,
      closeStart: openEnd,
      end: openEnd,
      selfClosing: tag.isSelfClosing,
      line: parser.line,
    };
    open.at(-1)?.children.push(element);
    root ??= element;
    open.push(element);
  });
  const addText = (text: string) => {
    const element = open.at(-1);
    if (element) element.text += text;
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', (tag) => {
    const element = open.pop();
    if (!element) return;
    if (!tag.isSelfClosing) element.closeStart = source.lastIndexOf('</', parser.position - 1);
    element.end = parser.position;
  });
  try {
    parser.write(source).close();
  } catch (error) {
    if (error instanceof Refusal) return fail(error.reason);
    // Saxes only throws for what its error handler lets through; both mean the text is not well-formed.
    report({ code: 'notXml', line: parser.line, detail: plainReason(String(error)) });
  }
  if (problem) return fail(problem);
  return root ? ok(root) : fail({ code: 'notXml', line: 1, detail: 'no element' });
}

const plainReason = (message: string) =>
  message
    .replace(/^Error:\s*/, '')
    .replace(/^\d+:\d+:\s*/, '')
    .replace(/\.$/, '');

export const childrenNamed = (element: XmlElement, name: string): readonly XmlElement[] =>
  element.children.filter((child) => child.name === name);

export const childNamed = (element: XmlElement, name: string): XmlElement | null =>
  element.children.find((child) => child.name === name) ?? null;

/** Trimmed text of a child, or null when there is no such child. */
export const childText = (element: XmlElement, name: string): string | null =>
  childNamed(element, name)?.text.trim() ?? null;

/** All elements below, depth first. */
export function* descendants(element: XmlElement): Generator<XmlElement> {
  // A stack instead of nested generators: a long score has a hundred thousand elements.
  const waiting = element.children.toReversed();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    yield next;
    for (let k = next.children.length - 1; k >= 0; k--) waiting.push(next.children[k]!);
  }
}
