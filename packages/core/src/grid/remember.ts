/**
 * A function of an object that works out each answer once: for what never changes, as entities do. An answer goes with its
 * object.
 */
export function rememberFor<K extends object, V>(compute: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, { answer: V }>();
  return (key) => {
    const before = known.get(key);
    if (before) return before.answer;
    const answer = compute(key);
    known.set(key, { answer });
    return answer;
  };
}
