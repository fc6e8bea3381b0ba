/** A linear program with binary columns, built row by row and written in the LP format. */

/** A way from one node of a path to the next. */
export interface Way {
  readonly name: string;
  readonly from: { readonly name: string };
  readonly to: { readonly name: string };
}

export class LinearProgram {
  private readonly costs = new Map<string, number>();
  readonly rows: string[] = [];
  readonly binaries = new Set<string>();
  private products = 0;

  /** "+ 3 x - y", as the LP format wants it. */
  row(terms: readonly (readonly [number, string])[], sense: '<=' | '>=' | '=', bound: number) {
    if (terms.length === 0) return;
    const sum = terms
      .map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`)
      .join(' ');
    this.rows.push(`r${this.rows.length}: ${sum} ${sense} ${bound}`);
  }

  /** At most one of two columns is 1. */
  notBoth(a: string, b: string) {
    this.row(
      [
        [1, a],
        [1, b],
      ],
      '<=',
      1,
    );
  }

  exactlyOne(names: readonly string[]) {
    this.row(
      names.map((name) => [1, name] as const),
      '=',
      1,
    );
  }

  /** A node of a path: it is taken exactly when one of its ways is. */
  flow(node: string, ways: readonly string[]) {
    this.row([[-1, node], ...ways.map((name) => [1, name] as const)], '=', 0);
  }

  /** Ways between the nodes of two layers: each node is left by one, and come to by one. */
  path(ways: readonly Way[], before: readonly string[], after: readonly string[]) {
    const namesOf = (some: readonly Way[]) => some.map(({ name }) => name);
    for (const node of before) this.flow(node, namesOf(ways.filter(({ from }) => from.name === node)));
    for (const node of after) this.flow(node, namesOf(ways.filter(({ to }) => to.name === node)));
  }

  /** A note that lies nowhere. */
  impossible() {
    this.row([[1, 'zero']], '=', 0);
    this.row([[1, 'zero']], '=', 1);
  }

  cost(amount: number, name: string) {
    this.costs.set(name, (this.costs.get(name) ?? 0) + amount);
  }

  /** The same amount again changes nothing. */
  costOnce(amount: number, name: string) {
    this.costs.set(name, amount);
  }

  /** Costs `amount` (at least 0) when all columns are 1 and none of `unless` is. */
  together(amount: number, columns: readonly string[], unless: readonly string[] = []) {
    if (amount === 0) return;
    const name = `u${this.products++}`;
    this.cost(amount, name);
    this.row(
      [[1, name], ...columns.map((one) => [-1, one] as const), ...unless.map((one) => [1, one] as const)],
      '>=',
      1 - columns.length,
    );
  }

  text(): string {
    // The solver takes the last of several factors of one column, so they are added up first.
    const objective = [...this.costs]
      .filter(([, amount]) => amount !== 0)
      .map(([name, amount]) => `${amount < 0 ? '-' : '+'} ${Math.abs(amount)} ${name}`);
    if (objective.length === 0) objective.push('0 zero');
    return `Minimize\n obj: ${objective.join(' ')}\nSubject To\n ${this.rows.join('\n ')}\nBinary\n ${[...this.binaries].join(' ')}\nEnd`;
  }
}
