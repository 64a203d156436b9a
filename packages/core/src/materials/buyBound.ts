import type { BuyProblem } from './buyProblem.ts';

/**
 * A lower bound by Lagrangian relaxation: each line has a multiplier, earned by the seller that covers it; a seller is
 * worth opening when what it earns beats its postage. Least orders bind each seller by itself. Prices are moved by
 * subgradient steps (Held, Wolfe, Crowder 1974).
 */
export function relax({ lines, sellers, choices }: BuyProblem, upper: number, late: () => boolean): number {
  const multipliers = Float64Array.from(choices, (of) => of[0]?.price ?? 0);
  let best = 0;
  let kept = multipliers.slice();
  // Offers by seller, so that each is judged by itself.
  const ofSeller: { line: number; price: number; stock: number }[][] = sellers.map(() => []);
  choices.forEach((of, line) =>
    of.forEach(({ seller, price, stock }) =>
      ofSeller[seller].push({ line, price, stock: Math.min(stock, lines[line].qty) }),
    ),
  );
  let pace = 1;
  let still = 0;
  for (let step = 0; step < STEPS && !late(); step++) {
    const gradient = Float64Array.from(lines, ({ qty }) => qty);
    let bound = lines.reduce((sum, { qty }, line) => sum + qty * multipliers[line], 0);
    sellers.forEach(({ shipping, minOrder }, seller) => {
      const offers = ofSeller[seller];
      let value = shipping;
      let goods = 0;
      const taken: { line: number; qty: number }[] = [];
      const rest: { line: number; price: number; stock: number }[] = [];
      for (const offer of offers) {
        if (offer.price < multipliers[offer.line]) {
          value += offer.stock * (offer.price - multipliers[offer.line]);
          goods += offer.stock * offer.price;
          taken.push({ line: offer.line, qty: offer.stock });
        } else if (offer.price > 0) rest.push(offer); // What costs nothing brings no order nearer to its least.
      }
      if (goods < minOrder && value < 0) {
        // Up to the least order by what costs least above its price, for each unit of money.
        rest.sort(
          (a, b) => (a.price - multipliers[a.line]) / a.price - (b.price - multipliers[b.line]) / b.price,
        );
        for (const offer of rest) {
          if (goods >= minOrder) break;
          const qty = Math.min(offer.stock, (minOrder - goods) / offer.price);
          value += qty * (offer.price - multipliers[offer.line]);
          goods += qty * offer.price;
          taken.push({ line: offer.line, qty });
        }
        // Nothing this seller has reaches its least order.
        if (goods < minOrder - 1e-9) return;
      }
      if (value >= 0) return;
      bound += value;
      for (const { line, qty } of taken) gradient[line] -= qty;
    });
    if (bound > best + 1e-9) {
      best = bound;
      kept = multipliers.slice();
      still = 0;
    } else if (++still >= 15) {
      pace /= 2;
      still = 0;
      multipliers.set(kept);
      if (pace < 1e-4) break;
      continue;
    }
    const length = gradient.reduce((sum, g) => sum + g * g, 0);
    if (length === 0) break;
    const target = Number.isFinite(upper) ? upper : best * 1.2 + 1;
    const stride = (pace * Math.max(1e-6, target - bound)) / length;
    for (let line = 0; line < multipliers.length; line++)
      multipliers[line] = Math.max(choices[line][0]?.price ?? 0, multipliers[line] + stride * gradient[line]);
  }
  return best;
}
const STEPS = 1500;
