/** ABC text by the reader of the `abcjs` package, as a MusicXML document. */
import abcjs from 'abcjs';
import { abcToMusic } from '../core/formats/abc/abcToMusic';
import { tuneSchema } from '../core/formats/abc/tune';
import type { ImportError } from '../core/formats/importError';
import { LIMITS } from '../core/formats/limits';
import { orRefusal } from '../core/formats/musicxml/refusal';
import { toMusicXml } from '../core/formats/written/toMusicXml';
import { fail, ok, type Result } from '../core/result';

/** Warnings about what carries no music. */
const HARMLESS = /directive|instruction|decoration|field|font|midi/i;

export function musicXmlFromAbc(text: string): Result<string, ImportError> {
  if (text.length > LIMITS.letters) return fail({ code: 'tooMuch', of: 'letters', most: LIMITS.letters });
  const tunes = abcjs.parseOnly(text.replace(/\r\n?/g, '\n')) as unknown as readonly {
    readonly warnings?: readonly string[];
  }[];
  const tune = tunes[0];
  if (!tune || !/^X:/m.test(text)) return fail({ code: 'abc', line: 1, detail: 'no tune begins with “X:”' });
  if (tunes.length > 1) {
    const line = lineOfSecondTune(text);
    return fail({
      code: 'abc',
      line,
      detail: `a second of ${tunes.length} tunes begins here, keep one in a file`,
    });
  }
  const warning = tune.warnings?.map(plain).find((one) => !HARMLESS.test(one));
  if (warning) return fail({ code: 'abc', ...placed(warning) });
  const parsed = tuneSchema.safeParse(JSON.parse(JSON.stringify(tune)));
  if (!parsed.success) {
    return fail({ code: 'abc', line: 1, detail: parsed.error.issues[0]?.message ?? 'unknown structure' });
  }
  const music = orRefusal(() => abcToMusic(parsed.data));
  return music.ok ? ok(toMusicXml(music.value)) : music;
}

const plain = (warning: string) => warning.replace(/<[^>]*>/g, '').trim();

/** "Music Line:5:3:  Unknown character ignored: …" */
function placed(warning: string): { line: number; detail: string } {
  const match = /Line:(\d+):\d+:\s*(.*)$/s.exec(warning);
  const detail = (match?.[2] ?? warning).split('\n')[0]!.trim().slice(0, 80).replace(/\.$/, '');
  return { line: Number(match?.[1] ?? 1), detail };
}

function lineOfSecondTune(text: string): number {
  const starts = text.split(/\r\n?|\n/).flatMap((line, k) => (/^X:/.test(line) ? [k + 1] : []));
  return starts[1] ?? 1;
}
