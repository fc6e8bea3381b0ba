/** The fonts that copies are set in: files that ship with the application, one for each family. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PAPER_FAMILIES } from '../core/copy/lettering';

const { resolve } = createRequire(import.meta.url);
const serif = (weight: string) => `@expo-google-fonts/source-serif-4/${weight}/SourceSerif4_${weight}.ttf`;

/** Source Serif 4 and Noto Music, both under the SIL Open Font License. */
const FILES: Readonly<Record<string, string>> = {
  [PAPER_FAMILIES.regular]: serif('400Regular'),
  [PAPER_FAMILIES.italic]: serif('400Regular_Italic'),
  [PAPER_FAMILIES.bold]: serif('600SemiBold'),
  [PAPER_FAMILIES.boldItalic]: serif('600SemiBold_Italic'),
  [PAPER_FAMILIES.black]: serif('900Black'),
  [PAPER_FAMILIES.blackItalic]: serif('900Black_Italic'),
  [PAPER_FAMILIES.music]: '@fontsource/noto-music/files/noto-music-music-400-normal.woff',
};

export const FAMILIES = Object.keys(FILES) as readonly string[];

const read = new Map<string, Buffer>();

/** @throws Error for a family that there is none of: a bug */
export function fontFile(family: string): Buffer {
  const known = read.get(family) ?? readFileSync(resolve(FILES[family] ?? ''));
  read.set(family, known);
  return known;
}
