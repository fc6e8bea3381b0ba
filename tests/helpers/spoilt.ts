/** Files spoilt by chance, from one good file of each kind. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../../scripts/run/paths';

export const MEI = `<?xml version="1.0"?><mei xmlns="http://www.music-encoding.org/ns/mei"><meiHead><fileDesc><titleStmt><title/></titleStmt><pubStmt/></fileDesc></meiHead><music><body><mdiv><score><scoreDef meter.count="4" meter.unit="4"><staffGrp><staffDef n="1" lines="5" clef.shape="G" clef.line="2"/></staffGrp></scoreDef><section><measure n="1"><staff n="1"><layer n="1"><tuplet num="3" numbase="2"><note pname="e" oct="4" dur="4"/><note pname="f" oct="4" dur="4"/><note pname="g" oct="4" dur="4"/></tuplet><note pname="e" oct="4" dur="2" dots="0"/></layer></staff></measure></section></score></mdiv></body></music></mei>`;

const demo = readFileSync(join(ROOT, 'demo/late-ferry.musicxml'), 'utf8');
const musicXml = demo.slice(0, demo.indexOf('</measure>', demo.length / 6) + 10) + '</part></score-partwise>';
const abc = 'X:1\nT:Spoilt\nM:3/4\nL:1/8\nQ:1/4=90\nK:Am\n|:A,2 [CE]2 (3efg|{a}c4 z2|[1 G6:|[2 A6|]\n';

/** One good file for each reader. */
export const SEEDS = { musicxml: musicXml, abc, mei: MEI } as const;

/** A file with some of its characters, numbers or elements changed. */
export function spoilt(text: string, random: () => number): string {
  const at = () => Math.floor(random() * text.length);
  const kind = Math.floor(random() * 6);
  if (kind === 0) return text.slice(0, at());
  if (kind === 1) {
    const [a, b] = [at(), at()].sort((x, y) => x - y);
    return text.slice(0, a) + text.slice(b);
  }
  if (kind === 2) {
    const k = at();
    return text.slice(0, k) + String.fromCharCode(Math.floor(random() * 0x300)) + text.slice(k + 1);
  }
  const numbers = ['-1', '0', '1e308', 'NaN', '99999999999', '0.0001', '', '💥', 'toString', '-0'];
  const matches = [...text.matchAll(/\d+/g)];
  const found = matches[Math.floor(random() * matches.length)];
  if (!found) return text;
  const value = numbers[Math.floor(random() * numbers.length)]!;
  const once = text.slice(0, found.index) + value + text.slice(found.index + found[0].length);
  return kind === 5 ? spoilt(once, random) : once;
}
