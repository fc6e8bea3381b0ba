/** Text as outlines: a picture that looks the same where the fonts are not. */
import { create, type Font } from 'fontkit';
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { PAPER_FAMILIES } from '../core/copy/lettering';
import { FAMILIES, fontFile } from './fonts';

const fonts = new Map<string, Font>();

function fontOf(family: string): Font {
  const name = FAMILIES.includes(family) ? family : PAPER_FAMILIES.regular;
  const known = fonts.get(name) ?? (create(fontFile(name)) as Font);
  fonts.set(name, known);
  return known;
}

/** What a text inherits. */
interface Style {
  readonly family: string;
  readonly size: number;
  readonly anchor: string;
  readonly fill: string;
}

interface Run {
  readonly style: Style;
  readonly words: string;
}

/** The picture without a single text in it; everything else stays as it is. */
export function outlined(svg: string): string {
  const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false });
  const out: string[] = [];
  const styles: Style[] = [{ family: PAPER_FAMILIES.regular, size: 16, anchor: 'start', fill: '#000' }];
  let text: {
    readonly at: { readonly x: number; readonly y: number };
    readonly anchor: string;
    readonly runs: Run[];
  } | null = null;
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag) => {
    const attributes = tag.attributes as Readonly<Record<string, string>>;
    styles.push(styleOf(attributes, styles.at(-1)!));
    if (tag.name === 'text')
      text = {
        at: { x: Number(attributes['x'] ?? 0), y: Number(attributes['y'] ?? 0) },
        anchor: styles.at(-1)!.anchor,
        runs: [],
      };
    else if (!text) out.push(openTag(tag));
  });
  parser.on('text', (words) => {
    if (text) text.runs.push({ style: styles.at(-1)!, words });
  });
  parser.on('closetag', (tag) => {
    styles.pop();
    if (tag.name === 'text' && text) {
      out.push(pathsOf(text.at, text.anchor, text.runs));
      text = null;
    } else if (!text && !tag.isSelfClosing) out.push(`</${tag.name}>`);
  });
  parser.write(svg).close();
  return out.join('');
}

const styleOf = (attributes: Readonly<Record<string, string>>, inherited: Style): Style => ({
  family: attributes['font-family'] ?? inherited.family,
  size: attributes['font-size'] === undefined ? inherited.size : parseFloat(attributes['font-size']),
  anchor: attributes['text-anchor'] ?? inherited.anchor,
  fill: attributes['fill'] ?? inherited.fill,
});

function openTag(tag: SaxesTagPlain): string {
  const attributes = Object.entries(tag.attributes as Readonly<Record<string, string>>)
    .filter(([name]) => !name.startsWith('font-'))
    .map(
      ([name, value]) =>
        ` ${name}="${value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;')}"`,
    )
    .join('');
  return `<${tag.name}${attributes}${tag.isSelfClosing ? '/' : ''}>`;
}

function pathsOf(
  at: { readonly x: number; readonly y: number },
  anchor: string,
  runs: readonly Run[],
): string {
  const laid = runs.map(({ style, words }) => {
    const font = fontOf(style.family);
    const { glyphs, positions } = font.layout(words);
    const scale = style.size / font.unitsPerEm;
    const width = positions.reduce((sum, { xAdvance }) => sum + xAdvance * scale, 0);
    return { style, glyphs, positions, scale, width };
  });
  const width = laid.reduce((sum, run) => sum + run.width, 0);
  let x = at.x - (anchor === 'middle' ? width / 2 : anchor === 'end' ? width : 0);
  return laid
    .map(({ style, glyphs, positions, scale, width }) => {
      let pen = x;
      x += width;
      const paths = glyphs.map((glyph, k) => {
        const { xAdvance, xOffset, yOffset } = positions[k]!;
        const move = `matrix(${scale.toFixed(5)} 0 0 ${(-scale).toFixed(5)} ${(pen + xOffset * scale).toFixed(2)} ${(at.y - yOffset * scale).toFixed(2)})`;
        pen += xAdvance * scale;
        const d = glyph.path.toSVG();
        return d === '' ? '' : `<path transform="${move}" d="${d}"/>`;
      });
      return `<g fill="${style.fill}" stroke="none">${paths.join('')}</g>`;
    })
    .join('');
}
