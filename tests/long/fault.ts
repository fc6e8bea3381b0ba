/** The deliberate faults: what is put in the place of which text, and which tests have to notice it. */
export interface Fault {
  readonly name: string;
  readonly file: string;
  readonly find: string;
  readonly put: string;
  /** The tests that have to notice it. */
  readonly tests?: readonly string[];
}
