/** A picture as pixels. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { initWasm, Resvg } from '@resvg/resvg-wasm';

/** As fine as a good printer needs it. */
const DOTS_PER_INCH = 300;
const MM_PER_INCH = 25.4;

let ready: Promise<void> | null = null;
const load = () =>
  (ready ??= initWasm(
    readFileSync(createRequire(import.meta.url).resolve('@resvg/resvg-wasm/index_bg.wasm')),
  ));

/** @param svg without text: there are no fonts here */
export async function pngOf(svg: string, widthMm: number): Promise<Uint8Array> {
  await load();
  const width = Math.round((widthMm / MM_PER_INCH) * DOTS_PER_INCH);
  const picture = new Resvg(svg, { fitTo: { mode: 'width', value: width }, background: '#fff' });
  return picture.render().asPng();
}
