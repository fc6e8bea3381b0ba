/** The drill bench: one drill at a time, set and fingered anew whenever a parameter changes. */
import { type DrillCounts, countsOf } from '$core/drills/counts';
import type { Chosen, DrillKind } from '$core/drills/drill';
import { type DrillScore, drillScore } from '$core/drills/drillScore';
import { DRILL_KINDS, maybeDrillKind } from '$core/drills/kinds/all';
import type { EngravedPage } from '$core/engraving/page';
import { type Sheet, sheetOf } from '$core/engraving/sheet';
import { inkOf } from '$core/fingering/edition/registers';
import type { FingeringPlan } from '$core/fingering/report/plan';
import { editionFile } from '$core/formats/edition/editionFile';
import { inkedMarks, plainMarks } from '$core/marks/marksOf';
import { sendFile } from '../sendFile';
import { save } from '../copy/saveFile';
import { leavePlanner, startEngraver, takePlanner } from '../planner';
import type { DocumentInput } from '$workers/readInput';
import type { Roles } from '$workers/roles';

interface Fingered {
  readonly drill: DrillScore;
  readonly plan: FingeringPlan;
  readonly roles: Roles;
}

export class DrillBench {
  kind = $state.raw<DrillKind>(DRILL_KINDS[0]!);
  chosen = $state.raw<Chosen>({});
  notice = $state('');
  readonly drill: DrillScore = $derived(drillScore(this.kind, this.chosen));
  private page = $state.raw<{ readonly drill: DrillScore; readonly page: EngravedPage } | null>(null);
  private fingered = $state.raw<Fingered | null>(null);
  private asked = 0;

  /** The engraving is shown as soon as it is there; its marks follow. */
  readonly sheet: Sheet | null = $derived.by(() => {
    if (!this.page) return null;
    return sheetOf(this.page.page, this.marks);
  });

  readonly counts: DrillCounts | null = $derived(
    this.fingered?.drill === this.drill ? countsOf(this.fingered.plan) : null,
  );

  private get marks() {
    if (!this.fingered || this.fingered.drill !== this.page?.drill) return [];
    const { drill, plan, roles } = this.fingered;
    const ink = inkOf(drill.registers);
    return inkedMarks(plainMarks(drill.document.score, plan, new Map(roles)), ink);
  }

  /** @param wanted of a link; what there is not is as usual */
  choose(kindId: string | null, wanted: Chosen): void {
    this.kind = maybeDrillKind(kindId ?? '') ?? DRILL_KINDS[0]!;
    this.chosen = wanted;
  }

  set(parameter: string, value: string): void {
    this.chosen = { ...this.chosen, [parameter]: value };
  }

  /** To be called whenever the drill has changed: answers to earlier drills are dropped. */
  async show(drill: DrillScore, pageWidth: number): Promise<void> {
    const asked = ++this.asked;
    const input = inputOf(drill);
    const planner = takePlanner(this);
    const engraving = startEngraver().page(input, pageWidth);
    const opening = planner.open(input);
    const page = await engraving;
    if (asked !== this.asked) return;
    if (page) this.page = { drill, page };
    const opened = await opening;
    const planned = await planner.plan();
    if (asked !== this.asked || !opened || 'error' in opened || !planned) return;
    this.fingered = { drill, plan: planned.plan, roles: opened.roles };
  }

  close(): void {
    this.asked = Infinity;
    leavePlanner(this);
  }

  /** As a piece of the shelf, with its fingering decided; its address when it is there. */
  async toShelf(): Promise<string | null> {
    const edition = new File([this.edition()], `${this.kind.id}.json`, { type: 'application/json' });
    const answer = await sendFile('/api/pieces', edition);
    if (answer.kind === 'refused') {
      this.notice = answer.message;
      return null;
    }
    return `/desk/${(answer.body as { readonly id: string }).id}`;
  }

  saveEdition(): void {
    save(new Blob([this.edition()], { type: 'application/json' }), `${this.drill.title}.oculon.json`);
  }

  private edition(): string {
    const { title, text, document, registers, kind } = this.drill;
    const bytes = new TextEncoder().encode(text);
    return JSON.stringify(
      editionFile({
        title,
        score: {
          kind: 'musicxml',
          fileName: `${kind.id}.musicxml`,
          source: base64(bytes),
          document: null,
          part: 0,
          noteNames: null,
          barNames: null,
        },
        read: document.score,
        registers,
      }),
    );
  }
}

const inputOf = ({ text, registers }: DrillScore): DocumentInput => ({
  bytes: new TextEncoder().encode(text),
  partIndex: 0,
  uids: null,
  convertedFrom: null,
  registers: [...registers],
});

const base64 = (bytes: Uint8Array): string =>
  btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
