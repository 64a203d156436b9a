import fc from 'fast-check';
import { paintOrder, type Solid } from './paintOrder.ts';

/** Boxes of whole sizes that share no room: each later one that would is left out. */
const boxes = fc
  .array(
    fc.record({
      ...{ u: fc.nat(6), v: fc.nat(6), z: fc.nat(4) },
      ...{
        du: fc.integer({ min: 1, max: 3 }),
        dv: fc.integer({ min: 1, max: 3 }),
        dz: fc.integer({ min: 1, max: 3 }),
      },
    }),
    { maxLength: 14 },
  )
  .map((all) =>
    all.reduce<Solid[]>(
      (kept, one) =>
        kept.some(
          (other) =>
            one.u < other.u + other.du &&
            other.u < one.u + one.du &&
            one.v < other.v + other.dv &&
            other.v < one.v + one.dv &&
            one.z < other.z + other.dz &&
            other.z < one.z + one.dz,
        )
          ? kept
          : [...kept, one],
      [],
    ),
  );

/** Of the unit cubes on each line of sight, along (1, 1, 1), the nearest must be the last that is drawn. */
test('what is drawn last on a line of sight is what is nearest to the eye', () => {
  fc.assert(
    fc.property(boxes, (solids) => {
      const order = paintOrder(solids);
      expect(new Set(order)).toEqual(new Set(solids));
      const at = new Map(order.map((solid, turn) => [solid, turn]));
      const lines = new Map<string, { depth: number; solid: Solid }[]>();
      for (const solid of solids) {
        const { u, v, z, du, dv, dz } = solid;
        for (let a = u; a < u + du; a++)
          for (let b = v; b < v + dv; b++)
            for (let c = z; c < z + dz; c++) {
              const key = `${a - c} ${b - c}`;
              lines.set(key, [...(lines.get(key) ?? []), { depth: a + b + c, solid }]);
            }
      }
      for (const cubes of lines.values()) {
        const nearest = cubes.reduce((one, other) => (other.depth > one.depth ? other : one));
        const last = Math.max(...cubes.map(({ solid }) => at.get(solid) ?? -1));
        expect(at.get(nearest.solid)).toBe(last);
      }
    }),
  );
});
