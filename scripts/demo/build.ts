/** Writes the demo's files: `npm run demo:build`. */
import { writeFileSync } from 'node:fs';
import { DEMO_PIECES } from './pieces';
import { writeMusicXml } from './writeMusicXml';

for (const piece of DEMO_PIECES) {
  const path = new URL(`../../demo/${piece.file}.musicxml`, import.meta.url);
  writeFileSync(path, writeMusicXml(piece));
}
