/** Copies: how many marks each density prints, how long a PDF takes and how large it is. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PLAIN_COPY } from '../src/core/copy/paper';
import { DENSITIES } from '../src/core/marks/style';
import { pdfOf } from '../src/print/pdf';
import { pagesOf, prepareFingered } from '../src/workers/prepareCopy';
import { ROOT } from '../scripts/run/paths';
import { note, timed, timedAsync } from './figures';
import { barredVoices } from './music';

const askOf = (bytes: Uint8Array, density: (typeof DENSITIES)[number]) => ({
  input: { bytes, partIndex: 0, uids: null, convertedFrom: null, registers: [] },
  options: { ...PLAIN_COPY, density },
  countedBars: '',
  title: 'Bench',
  imprint: '',
});

export async function copies() {
  for (const name of readdirSync(join(ROOT, 'demo'))) marksOf(name);
  await pdfs('late-ferry, one page', new Uint8Array(readFileSync(join(ROOT, 'demo/late-ferry.musicxml'))));
  await pdfs('200 bars', new TextEncoder().encode(barredVoices(200, 5)));
}

function marksOf(name: string) {
  const bytes = new Uint8Array(readFileSync(join(ROOT, 'demo', name)));
  for (const density of DENSITIES) {
    const { source } = prepareFingered(askOf(bytes, density));
    const label = `${name.replace('.musicxml', '')}: marks per note, ${density}`;
    note('copies', label, source.marks.length / source.plan.notes.length, 'marks');
  }
}

async function pdfs(label: string, bytes: Uint8Array) {
  const [fingered, planMs] = timed(() => prepareFingered(askOf(bytes, 'teaching')));
  note('copies', `${label}: planned`, planMs, 'ms');
  await pagesOf(fingered);
  const [pages, pagesMs] = await timedAsync(() => pagesOf(fingered));
  note('copies', `${label}: ${pages.length} pages engraved and set, warm`, pagesMs, 'ms');
  const [pdf, pdfMs] = await timedAsync(() => pdfOf(pages, { title: 'Bench', date: new Date(0) }));
  note('copies', `${label}: written as PDF`, pdfMs, 'ms');
  note('copies', `${label}: size`, pdf.length / 1024, 'kB');
}
