/** Engraves one score at a time; the module is loaded as soon as the worker starts. */
import { readMusicXmlText } from '../core/formats/musicxml/bytes';
import { readScore } from '../core/formats/musicxml/readScore';
import { engrave, loadEngraver } from './engrave';
import type { EngraverAnswer, EngraverRequest } from './protocol';

void loadEngraver();

self.onmessage = async ({ data }: MessageEvent<EngraverRequest>) => {
  const answer = (value: EngraverAnswer) => self.postMessage(value);
  const text = readMusicXmlText(data.source);
  const document = text.ok ? readScore(text.value.text) : text;
  if (!text.ok || !document.ok) return answer({ generation: data.generation, page: null });
  answer({ generation: data.generation, page: await engrave(text.value.text, document.value) });
};
