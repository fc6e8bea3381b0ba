/** The copy of an edition while it is looked at: how it is to look, its pages, and what has been handed out of it. */
import { z } from 'zod';
import { composeCopy, type CopyPage } from '$core/copy/compose';
import { type CopyDifference, copyMarks, copyMarkSchema, differencesOf } from '$core/copy/copyMark';
import { copySource, densityOfCopy } from '$core/copy/copySource';
import { imprintOf } from '$core/copy/fileName';
import type { Format } from '$core/copy/formats';
import type { Lettering } from '$core/copy/lettering';
import { type CopyOptions, copyOptionsSchema, PLAIN_COPY } from '$core/copy/paper';
import type { CopySource } from '$core/copy/source';
import type { EngravedPage } from '$core/engraving/page';
import type { Density } from '$core/marks/style';
import { Desk } from '../desk/desk.svelte';
import type { DeskOpening } from '../desk/stored';
import { save, saveFile } from './saveFile';

const REMEMBERED = 'oculon-copy';
/** A copy is made from what the server has: so long it is waited for that it has all. */
const SAVED_WITHIN_MS = 6000;

const SCREEN_FAMILY = `font-family="'Source Serif 4 Variable', serif"`;
const WEIGHTS = { pencil: 400, ink: 900, printed: 600 } as const;
const SCREEN_LETTERING: Lettering = {
  mark: (state, slanted) =>
    `${SCREEN_FAMILY} font-weight="${WEIGHTS[state]}" font-style="${slanted ? 'italic' : 'normal'}"`,
  words: (face) =>
    `${SCREEN_FAMILY} font-weight="${face === 'bold' ? 600 : 400}" font-style="${face === 'italic' ? 'italic' : 'normal'}"`,
  music: "'Source Serif 4 Variable', serif",
};

const handedOutSchema = z.array(
  z.object({
    id: z.string(),
    seq: z.int(),
    forWhom: z.string(),
    fileName: z.string(),
    options: copyOptionsSchema.partial(),
    marks: z.array(copyMarkSchema),
    createdAt: z.string(),
  }),
);
export type HandedOutCopy = z.infer<typeof handedOutSchema>[number];

export class Copy {
  options = $state.raw<CopyOptions>(PLAIN_COPY);
  countedBars = $state('');
  notice = $state('');
  /** What is being made, in words; empty while nothing is. */
  making = $state('');
  handedOut = $state.raw<readonly HandedOutCopy[]>([]);
  /** The copy that the present state is compared with. */
  compared = $state.raw<HandedOutCopy | null>(null);

  readonly desk: Desk;
  private engraved = $state.raw<EngravedPage | null>(null);
  private asked = 0;

  constructor(private readonly opening: DeskOpening) {
    this.desk = new Desk(opening, false);
  }

  private readonly source: CopySource | null = $derived.by(() => {
    const { score, plan, roles, script } = this.desk.planning;
    if (!score || !plan) return null;
    const { registers, lens } = this.desk.session;
    const board = lens.player.fretboard;
    const title = this.opening.piece.title;
    const imprint = imprintOf(new Date(), this.opening.headSeq);
    return copySource({ score, plan, roles, registers, board, script: script ?? [] }, this.options, {
      title,
      imprint,
    });
  });

  /** What is not as on the compared copy. */
  readonly differences: readonly CopyDifference[] = $derived.by(() => {
    const { score } = this.desk.planning;
    if (!this.compared || !this.source || !score) return [];
    return differencesOf(this.compared.marks, copyMarks(this.source.marks), score);
  });

  readonly density: Density = $derived.by(() => densityOfCopy(this.desk.session.registers, this.options));

  readonly pages: readonly CopyPage[] = $derived.by(() => {
    if (!this.engraved || !this.source) return [];
    return composeCopy(this.engraved, this.source, {
      options: this.options,
      density: this.density,
      countedBars: this.countedBars,
      lettering: SCREEN_LETTERING,
      changed: new Set(this.differences.map(({ uid }) => uid)),
    });
  });

  get editionAddress(): string {
    return `/api/editions/${this.opening.piece.editionId}/file`;
  }

  get editionName(): string {
    return `${this.opening.piece.title}.oculon.json`;
  }

  /** So many marks are printed. */
  get markCount(): number {
    return this.source?.marks.length ?? 0;
  }

  async open(): Promise<void> {
    const known = copyOptionsSchema.safeParse(JSON.parse(localStorage.getItem(REMEMBERED) ?? 'null'));
    if (known.success) this.options = { ...known.data, density: null };
    void this.listHandedOut();
    await this.desk.open();
  }

  close(): void {
    this.desk.close();
  }

  set(options: Partial<CopyOptions>): void {
    this.options = { ...this.options, ...options };
    localStorage.setItem(REMEMBERED, JSON.stringify(this.options));
  }

  /** Asks for the page of this paper; an answer to an earlier question is dropped. */
  async engrave(): Promise<void> {
    const asked = ++this.asked;
    const { paper, orientation, staff } = this.options;
    const page = await this.desk.planning.engraveCopy({ paper, orientation, staff });
    if (page && asked === this.asked) this.engraved = page;
  }

  /** The server's file of what is seen here. */
  async save(format: Format, bars = ''): Promise<void> {
    await this.make('Making the file …', async () => {
      const address = `/api/editions/${this.opening.piece.editionId}/copy`;
      return saveFile(address, { ...this.request, format, bars });
    });
  }

  /** Makes and keeps the copy as it is now. */
  async handOut(forWhom: string): Promise<void> {
    await this.make('Making the copy …', async () => {
      const response = await fetch(`/api/editions/${this.opening.piece.editionId}/copies`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ ...this.request, forWhom }),
      }).catch(() => null);
      if (!response?.ok) return 'The copy could not be made; nothing was handed out. Try again.';
      await this.listHandedOut();
      const newest = this.handedOut[0];
      if (newest) await this.again(newest);
      return null;
    });
  }

  /** The file of a copy as it was handed out. */
  async again({ id, fileName }: HandedOutCopy): Promise<void> {
    const response = await fetch(`/api/copies/${id}`).catch(() => null);
    if (response?.ok) save(await response.blob(), fileName);
    else this.notice = 'The server does not answer; the copy could not be fetched. Try again.';
  }

  compare(copy: HandedOutCopy | null): void {
    this.compared = this.compared === copy ? null : copy;
  }

  private get request() {
    return { options: this.options, countedBars: this.countedBars };
  }

  /** Not before the server has every change. */
  private async make(words: string, work: () => Promise<string | null>): Promise<void> {
    if (this.making) return;
    this.making = words;
    this.notice = '';
    const isSaved = await this.saved();
    this.notice = isSaved
      ? ((await work()) ?? '')
      : 'Some changes have not reached the server yet, so the file would lack them. They are kept in this browser; try again when they are saved.';
    this.making = '';
  }

  private async saved(): Promise<boolean> {
    const { saver } = this.desk.session;
    const end = Date.now() + SAVED_WITHIN_MS;
    while (saver.unsentCount > 0 && Date.now() < end)
      await new Promise((resolve) => setTimeout(resolve, 100));
    return saver.unsentCount === 0;
  }

  private async listHandedOut(): Promise<void> {
    const response = await fetch(`/api/editions/${this.opening.piece.editionId}/copies`).catch(() => null);
    const copies = handedOutSchema.safeParse(response?.ok ? await response.json() : null);
    if (copies.success) this.handedOut = copies.data;
  }
}
