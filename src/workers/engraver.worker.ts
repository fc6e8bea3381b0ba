/** Engraves one score at a time; the module is loaded as soon as the worker starts. */
import { loadEngraver } from './engrave';
import { preparePage } from './preparePage';
import type { EngraverAnswer, EngraverRequest } from './protocol';

void loadEngraver();

self.onmessage = async ({ data }: MessageEvent<EngraverRequest>) => {
  const { generation, operation } = data;
  const answer = (value: EngraverAnswer) => self.postMessage(value);
  try {
    const { page } = await preparePage(data.input);
    answer({ generation, operation, page });
  } catch {
    answer({ generation, operation, page: null });
  }
};
