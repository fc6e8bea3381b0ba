/**
 * A plan around a fingering of which some marks leave a choice: first without those, then with one of them set wherever
 * the plan took what nobody accepts.
 */
export function settled<Plan, Key>(
  planWith: (set: ReadonlySet<Key>) => Plan,
  wrongIn: (plan: Plan) => readonly Key[],
): Plan {
  const free = planWith(new Set());
  const wrong = wrongIn(free);
  return wrong.length === 0 ? free : planWith(new Set(wrong));
}
