// How deep what comes from outside may be nested: whatever is deeper never reaches a recursive reader or writer.

/** How deep what is read may be nested: a display file needs 4, a batch with a proposal 8. */
export const MAX_NESTING = 32;

/** Deepest nesting of brackets outside strings: a hostile file must not reach a recursive parser. */
export function nesting(json: string): number {
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
  let level: unknown[] = [value];
  for (let depth = 0; ; depth++) {
    const within = level.flatMap((one): unknown[] =>
      typeof one === 'object' && one !== null ? Object.values(one) : [],
    );
    if (!level.some((one) => typeof one === 'object' && one !== null)) return depth;
    level = within;
  }
}
