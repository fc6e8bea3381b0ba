/** MEI by way of the engraver, which understands all its dialects, as a MusicXML document. */
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';
import type { ImportError } from '../core/formats/importError';
import { meiToMusic } from '../core/formats/mei/meiToMusic';
import { parseXml } from '../core/formats/musicxml/xmlTree';
import { toMusicXml } from '../core/formats/written/toMusicXml';
import { fail, ok, type Result } from '../core/result';

let toolkit: Promise<VerovioToolkit> | null = null;

export async function musicXmlFromMei(text: string): Promise<Result<string, ImportError>> {
  const source = parseXml(text);
  if (!source.ok) return source;
  const engraver = await (toolkit ??= createVerovioModule().then((module) => new VerovioToolkit(module)));
  engraver.setOptions({ xmlIdSeed: 7, inputFrom: 'mei' });
  if (!engraver.loadData(text)) return fail({ code: 'mei', detail: 'the engraver finds no music in it' });
  const tree = parseXml(engraver.getMEI({}));
  if (!tree.ok) return tree;
  const music = meiToMusic(tree.value);
  return music.ok ? ok(toMusicXml(music.value)) : music;
}
