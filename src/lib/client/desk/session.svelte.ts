/** The registers of an edition as they are here: changed by gestures, undone and done again, and saved. */
import {
  applyOperations,
  type Gesture,
  invertOperations,
  type Operation,
  setAttribute,
} from '$core/fingering/edition/operation';
import type { Attribute, Value, ValueOf } from '$core/fingering/edition/attributes';
import {
  inkOf,
  isCorrection,
  lensOf,
  listRegisters,
  dampsOf,
  expressionsOf,
  remarksOf,
  markStyleOf,
  showingOf,
  NO_REGISTERS,
  type Register,
  type Registers,
} from '$core/fingering/edition/registers';
import type { MarkStyle } from '$core/marks/style';
import { type Ink, type InkMarks, NO_INK } from '$core/fingering/problem/ink';
import { Saver } from './saver.svelte';
import type { DeskOpening } from './stored';

const OVERTAKEN = 'Someone else changed the same notes; your last marks there were not kept.';
const CONFLICT = 'These marks have been changed since; nothing was done.';

/** One's own mark that came too late, beside what stands there now. */
export interface Overtaken {
  readonly target: string;
  readonly attribute: Attribute;
  readonly mine: Value;
}

/** Steps back and forth of every edition that was open in this tab: kept while one looks at something else. */
interface Steps {
  readonly done: readonly Gesture[];
  readonly undone: readonly Gesture[];
}
const stepsOf = new Map<string, Steps>();

export class EditionSession {
  registers = $state.raw<Registers>(NO_REGISTERS);
  readonly saver: Saver;
  /** Changes that the server would not take: taken back, until the teacher makes them again or lets them go. */
  setAside = $state.raw<readonly Gesture[]>([]);
  /** Marks that somebody else was faster with, until the teacher says which stay. */
  overtaken = $state.raw<readonly Overtaken[]>([]);
  private done = $state.raw<readonly Gesture[]>([]);
  private undone = $state.raw<readonly Gesture[]>([]);
  private readonly editionId: string;

  readonly ink: Ink = $derived(inkOf(this.registers));
  readonly lens = $derived(lensOf(this.registers));
  /** Parts, so that only another style is another object. */
  private readonly markStyleText = $derived(JSON.stringify(markStyleOf(this.registers)));
  readonly markStyle = $derived(JSON.parse(this.markStyleText) as MarkStyle);
  readonly damps = $derived(dampsOf(this.registers));
  readonly expressions = $derived(expressionsOf(this.registers));
  readonly remarks = $derived(remarksOf(this.registers));
  readonly showing = $derived(showingOf(this.registers));
  readonly corrections: readonly Register[] = $derived(
    listRegisters(this.registers).filter(({ attribute }) => isCorrection(attribute)),
  );
  readonly canUndo = $derived(this.done.length > 0);
  readonly canRedo = $derived(this.undone.length > 0);

  /**
   * @param changed called after every change, from here or elsewhere
   * @param say what the person at the desk should know; empty when all went well
   */
  constructor(
    { piece, base, history, headSeq }: DeskOpening,
    private readonly changed: () => void,
    private readonly say: (notice: string) => void,
  ) {
    this.editionId = piece.editionId;
    const steps = stepsOf.get(piece.editionId);
    this.done = steps?.done ?? [];
    this.undone = steps?.undone ?? [];
    this.saver = new Saver(
      piece.editionId,
      { base: new Map(base), history, headSeq },
      (registers, refused, why) => {
        this.setRegisters(registers);
        if (why === 'unreadable') this.setAside = [...this.setAside, ...refused];
        else if (refused.length > 0) this.hearOvertaken(refused);
      },
    );
  }

  /** Reads what is stored, and what an earlier visit could not send. */
  async open(): Promise<void> {
    this.registers = await this.saver.open();
  }

  close(): void {
    stepsOf.set(this.editionId, { done: this.done, undone: this.undone });
    this.saver.close();
  }

  inkOf = (uid: string): InkMarks => this.ink.get(uid) ?? NO_INK;

  valueOf = (target: string, attribute: Attribute): Value =>
    this.registers.get(`${target} ${attribute}`) ?? null;

  /** The operation that sets a value; null where it is there already. */
  change<A extends Attribute>(target: string, attribute: A, value: ValueOf<A>): Operation | null {
    return setAttribute(this.registers, target, attribute, value);
  }

  /** Does all of it at once, as one gesture. */
  decide(changes: readonly (Operation | null)[]): void {
    const operations = changes.filter((change) => change !== null);
    if (operations.length === 0) return;
    const gesture = { id: crypto.randomUUID(), operations };
    if (!this.apply(gesture)) return;
    this.done = [...this.done, gesture];
    this.undone = [];
  }

  /** Gives the target of what was undone, null where nothing was. */
  undo(): string | null {
    const gesture = this.done.at(-1);
    if (!gesture) return null;
    this.done = this.done.slice(0, -1);
    if (!this.apply({ id: crypto.randomUUID(), operations: invertOperations(gesture.operations) }))
      return null;
    this.undone = [...this.undone, gesture];
    return gesture.operations[0]!.target;
  }

  redo(): string | null {
    const gesture = this.undone.at(-1);
    if (!gesture) return null;
    this.undone = this.undone.slice(0, -1);
    const again = { ...gesture, id: crypto.randomUUID() };
    if (!this.apply(again)) return null;
    this.done = [...this.done, again];
    return gesture.operations[0]!.target;
  }

  /** Makes the changes that were set aside again, on what stands there now. */
  redoSetAside(): void {
    const operations = this.setAside.flatMap((gesture) => gesture.operations);
    this.setAside = [];
    this.decide(
      operations.map(({ target, attribute, after }) => this.change(target, attribute, after as never)),
    );
  }

  /** One's own marks once more, over those that came first. */
  takeMine(): void {
    const mine = this.overtaken;
    this.overtaken = [];
    this.decide(
      mine.map(({ target, attribute, mine: value }) => this.change(target, attribute, value as never)),
    );
  }

  takeTheirs(): void {
    this.overtaken = [];
  }

  private hearOvertaken(refused: readonly Gesture[]): void {
    const lost = refused.flatMap(({ operations }) => operations);
    this.overtaken = lost
      .map(({ target, attribute, after }) => ({ target, attribute, mine: after }))
      .filter(({ target, attribute, mine }) => this.valueOf(target, attribute) !== mine);
    this.say(OVERTAKEN);
  }

  dropSetAside(): void {
    this.setAside = [];
  }

  /** Undoes the last gesture for good. */
  takeBack(): void {
    this.undo();
    this.undone = this.undone.slice(0, -1);
  }

  /** Applies a gesture here and keeps it for the server. False when its values are no longer there. */
  private apply(gesture: Gesture): boolean {
    const result = applyOperations(this.registers, gesture.operations);
    if (result.kind === 'conflict') {
      this.say(CONFLICT);
      return false;
    }
    this.say('');
    this.setRegisters(result.registers);
    void this.saver.add(gesture);
    return true;
  }

  private setRegisters(registers: Registers): void {
    this.registers = registers;
    this.changed();
  }
}
