/** A linear program with binary columns, built row by row and written in the LP format. */

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

  /** A note that lies nowhere. */
  impossible() {
    this.row([[1, 'zero']], '=', 0);
    this.row([[1, 'zero']], '=', 1);
  }

  cost(amount: number, name: string) {
    this.costs.set(name, (this.costs.get(name) ?? 0) + amount);
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
