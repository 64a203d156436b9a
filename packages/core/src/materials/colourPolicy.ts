import { DISTINCT_DELTA_E, ANY_COLOUR, colourDeltaE } from '../catalogue/index.ts';
import { COLOUR_POLICIES, displayOf, listOf, type Scene } from '../document/index.ts';

// Which colours may stand where others are asked for, by the house rules and a section's own.

type ColourPolicy = (typeof COLOUR_POLICIES)[number];

/**
 * The rule that holds for colours in a section: its own, else the display's for what is seen. Of what may stand in any
 * section (null) it is the strictest of them.
 */
export function colourPolicyOf(scene: Scene, section: string | null): ColourPolicy {
  const seen = displayOf(scene).colourSeen;
  if (section !== null) return scene.section[section]?.colour ?? seen;
  const all = [seen, ...listOf(scene, 'section').map(({ colour }) => colour ?? seen)];
  return COLOUR_POLICIES.find((policy) => all.includes(policy)) ?? seen;
}

/** Whether a colour may stand where another is asked for: old and new tones differ by at most `ANOTHER_COLOUR`. */
export function mayStandIn(policy: ColourPolicy, asked: string, got: string): boolean {
  if (policy === 'free' || asked === got || asked === ANY_COLOUR || got === ANY_COLOUR) return true;
  return policy === 'aged' && colourDeltaE(asked, got) <= DISTINCT_DELTA_E;
}
