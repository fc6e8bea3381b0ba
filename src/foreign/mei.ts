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
  const understood = await maybeUnderstood(text);
  if (understood === null) return fail({ code: 'mei', detail: 'the engraver finds no music in it' });
  const tree = parseXml(understood);
  if (!tree.ok) return tree;
  try {
    const music = meiToMusic(tree.value);
    return music.ok ? ok(toMusicXml(music.value)) : music;
  } catch (error) {
    // Numbers that are none anywhere else in a file are no lengths and no places.
    if (error instanceof RangeError)
      return fail({ code: 'mei', detail: 'a number in it is none that music has' });
    throw error;
  }
}

/** The same music in the engraver's own form; null where it can make nothing of it. After a failure it is made anew. */
async function maybeUnderstood(text: string): Promise<string | null> {
  try {
    const engraver = await (toolkit ??= createVerovioModule().then((module) => new VerovioToolkit(module)));
    engraver.setOptions({ xmlIdSeed: 7, inputFrom: 'mei' });
    return engraver.loadData(text) ? engraver.getMEI({}) : null;
  } catch {
    // A failed assertion or a full stack leaves its memory in pieces.
    toolkit = null;
    return null;
  }
}
