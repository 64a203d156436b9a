// Chance that can be repeated: every draw comes from a seed.

/** Uniform draws in [0, 1): mulberry32, a 32-bit generator with a period of 2³². @param seed any whole number */
export function uniformFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** A standard normal draw (Box and Muller 1958). */
export function normal(uniform: () => number): number {
  const radius = Math.sqrt(-2 * Math.log(1 - uniform()));
  return radius * Math.cos(2 * Math.PI * uniform());
}

/** A gamma draw of shape 1 or more and scale 1 (Marsaglia and Tsang 2000). */
export function gamma(shape: number, uniform: () => number): number {
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normal(uniform);
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - uniform()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** A seed of its own for everything that has a name: FNV-1a over both. @param seed any whole number */
export function seedFor(seed: number, name: string): number {
  let hash = (0x811c9dc5 ^ seed) >>> 0;
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 0x01000193) >>> 0;
  return hash;
}
