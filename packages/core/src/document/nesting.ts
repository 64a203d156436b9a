// How deep what comes from outside may be nested: whatever is deeper never reaches a recursive reader or writer.

/** How deep what is read may be nested: a display file needs 4, a batch with a proposal 8. */
export const MAX_NESTING = 32;

/** Deepest nesting of brackets outside strings: a hostile file must not reach a recursive parser. */
export function nestingDepth(json: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < json.length; i++) {
    const code = json.charCodeAt(i);
    if (quoted) {
      if (code === 92) i++;
      else if (code === 34) quoted = false;
    } else if (code === 34) quoted = true;
    else if (code === 91 || code === 123) deepest = Math.max(deepest, ++depth);
    else if (code === 93 || code === 125) depth--;
  }
  return deepest;
}

/** How deep a value that was read from JSON is nested: 0 for what holds nothing. Without recursion. */
export function depthOf(value: unknown): number {
  const open: { value: object; depth: number }[] = [];
  let deepest = 0;
  const see = (one: unknown, depth: number) => {
    if (typeof one === 'object' && one !== null) open.push({ value: one, depth });
  };
  see(value, 1);
  for (let next = open.pop(); next; next = open.pop()) {
    deepest = Math.max(deepest, next.depth);
    for (const one of Object.values(next.value)) see(one, next.depth + 1);
  }
  return deepest;
}
