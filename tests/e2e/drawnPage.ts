/**
 * The page as it is drawn, measured in the browser: every mark's ink and whatever engraved thing it lies on. Shares no
 * code with the placing of marks.
 */
import type { Page } from '@playwright/test';

export interface DrawnMark {
  readonly kind: string;
  readonly uid: string;
  /** Of the ink of its text, in staff spaces. */
  readonly height: number;
  /** Between its ink and its notehead, in staff spaces; null for marks in rows. */
  readonly distance: number | null;
  /** Classes of what lies under its ink, and ids of marks that do. */
  readonly touches: readonly string[];
}

export const drawnMarks = (page: Page): Promise<readonly DrawnMark[]> =>
  page.evaluate(() => {
    interface Ink {
      readonly left: number;
      readonly right: number;
      readonly top: number;
      readonly bottom: number;
    }
    const overlap = (a: Ink, b: Ink) =>
      a.left < b.right - 0.3 && b.left < a.right - 0.3 && a.top < b.bottom - 0.3 && b.top < a.bottom - 0.3;
    // Everything is laid out, also what is out of sight.
    for (const one of document.querySelectorAll<HTMLElement>('[data-testid=score] > div'))
      one.style.contentVisibility = 'visible';
    const pen = document.createElement('canvas').getContext('2d')!;
    /** The ink of a text, not the box of its line. */
    const inkOf = (text: SVGTextElement): Ink => {
      const style = getComputedStyle(text);
      const scale = text.getScreenCTM()!.a;
      const size = parseFloat(style.fontSize);
      pen.font = `${style.fontStyle} ${style.fontWeight} ${size}px ${style.fontFamily}`;
      const measured = pen.measureText(text.textContent);
      const origin = new DOMPoint(
        Number(text.getAttribute('x')),
        Number(text.getAttribute('y')),
      ).matrixTransform(text.getScreenCTM()!);
      const half = measured.width / 2;
      return {
        left: origin.x - (half + measured.actualBoundingBoxLeft) * scale,
        right: origin.x + (measured.actualBoundingBoxRight - half) * scale,
        top: origin.y - measured.actualBoundingBoxAscent * scale,
        bottom: origin.y + measured.actualBoundingBoxDescent * scale,
      };
    };
    const engraved = [
      ...document.querySelectorAll<SVGGraphicsElement>(
        '.engraving use, .engraving path, .engraving polygon, .engraving rect, .engraving ellipse, .engraving text',
      ),
    ].filter((one) => {
      const box = one.getBoundingClientRect();
      // A numeral may stand on the lines of its staff, and behind a ledger line of its note.
      return (
        !one.closest('.ledgerLines') && !(one.localName === 'path' && box.height < 1.5 && box.width > 30)
      );
    });
    /** Of a text without descenders the line is a good deal higher than its ink. */
    const boxOf = (one: SVGGraphicsElement): Ink => {
      const { left, right, top, bottom, height } = one.getBoundingClientRect();
      if (one.localName !== 'text' || /[gjpqy,;]/.test(one.textContent)) return { left, right, top, bottom };
      return { left, right, top: top + 0.1 * height, bottom: bottom - 0.22 * height };
    };
    const boxes = engraved.map((one) => ({ one, box: boxOf(one) }));
    const covers = (one: SVGGraphicsElement, ink: Ink): boolean => {
      if (!(one instanceof SVGGeometryElement)) return true;
      const toLocal = one.getScreenCTM()!.inverse();
      for (let i = 0; i <= 6; i++)
        for (let j = 0; j <= 6; j++) {
          const x = ink.left + ((ink.right - ink.left) * (0.5 + i)) / 7;
          const y = ink.top + ((ink.bottom - ink.top) * (0.5 + j)) / 7;
          const point = new DOMPoint(x, y).matrixTransform(toLocal);
          if (one.isPointInFill(point) && getComputedStyle(one).fill !== 'none') return true;
          if (one.isPointInStroke(point) && getComputedStyle(one).stroke !== 'none') return true;
        }
      return false;
    };
    const classOf = (one: Element) => one.closest('g[class]')?.getAttribute('class') ?? one.localName;
    const staffLines = [...document.querySelectorAll<SVGPathElement>('.engraving .staff > path')];
    const [first, second] = staffLines.map((line) => line.getBoundingClientRect());
    const space = second!.top - first!.top;
    const marks = [...document.querySelectorAll<SVGGElement>('[data-mark]')].map((mark) => {
      const text = mark.querySelector('text');
      const circle = mark.querySelector('circle');
      const shape =
        circle?.getBoundingClientRect() ?? mark.querySelector('path, line')?.getBoundingClientRect();
      const ink: Ink = circle || !text ? shape! : inkOf(text);
      return { mark, text, ink, id: `${mark.dataset.mark} ${mark.dataset.uid}` };
    });
    return marks.map(({ mark, text, ink }) => {
      const paper = mark.ownerSVGElement!.getBoundingClientRect();
      const isOff = ink.left < paper.left - 1 || ink.right > paper.right + 1;
      const { mark: kind, uid } = mark.dataset as { mark: string; uid: string };
      const head = document
        .querySelector(`[id="${uid}"] .notehead use, [id="${uid}"] .notehead path`)
        ?.getBoundingClientRect();
      const dx = head ? Math.max(0, head.left - ink.right, ink.left - head.right) : 0;
      const dy = head ? Math.max(0, head.top - ink.bottom, ink.top - head.bottom) : 0;
      const isNumeral = kind === 'finger' || kind === 'unplanned';
      // A guide's line is thinner than the box around it.
      const under =
        kind === 'guide' ? [] : boxes.filter(({ one, box }) => overlap(ink, box) && covers(one, ink));
      const others =
        kind === 'guide'
          ? []
          : marks.filter(
              (other) =>
                other.mark !== mark && other.mark.dataset.mark !== 'guide' && overlap(ink, other.ink),
            );
      return {
        kind,
        uid,
        height: text ? (ink.bottom - ink.top) / space : 0,
        distance: isNumeral && head ? Math.hypot(dx, dy) / space : null,
        touches: [
          ...(isOff ? ['edge'] : []),
          ...under.map(({ one }) => classOf(one)),
          ...others.map((other) => other.id),
        ],
      };
    });
  });
