import { BUILDING_RULES } from './building.ts';
import { PEOPLE_RULES } from './people.ts';
import { BRIEF_RULES } from './brief.ts';
import { DRESS_RULES } from './dress.ts';
import { WALL_RULES } from './walls.ts';
import { TERRAIN_RULES } from './terrain.ts';
import { CAST_RULES } from './cast.ts';
import { DECK_RULES } from './decks.ts';
import { BAY_RULES } from './bays.ts';
import { LEAN_RULES } from './lean.ts';
import { LEVEL_RULES } from './levels.ts';
import { MOVE_RULES } from './moves.ts';
import { PLACE_RULES } from './places.ts';
import { FRONT_RULES } from './fronts.ts';
import { PLOT_RULES } from './plots.ts';
import { LIFTING_RULES } from './lifting.ts';
import { POWER_RULES } from './power.ts';
import { PUBLIC_RULES } from './public.ts';
import { ROOM_RULES } from './rooms.ts';
import { SEAM_RULES } from './seams.ts';
import { SIGHT_RULES } from './sight.ts';
import { SIGNBOARD_RULES } from './signboards.ts';
import { STOCK_RULES } from './stock.ts';
import { SURVEY_RULES } from './survey.ts';
import { TRACK_RULES } from './tracks.ts';
import { TRANSPORT_RULES } from './transport.ts';
import { WAY_RULES } from './ways.ts';
import type { Rule } from './finding.ts';

/** Every rule there is: the one registry. A new check is a rule in this list. */
export const RULES: readonly Rule[] = [
  ...BRIEF_RULES,
  ...SURVEY_RULES,
  ...PUBLIC_RULES,
  ...PLACE_RULES,
  ...LEVEL_RULES,
  ...DECK_RULES,
  ...BAY_RULES,
  ...ROOM_RULES,
  ...LEAN_RULES,
  ...MOVE_RULES,
  ...BUILDING_RULES,
  ...SEAM_RULES,
  ...PLOT_RULES,
  ...LIFTING_RULES,
  ...FRONT_RULES,
  ...SIGHT_RULES,
  ...SIGNBOARD_RULES,
  ...TERRAIN_RULES,
  ...WAY_RULES,
  ...TRACK_RULES,
  ...DRESS_RULES,
  ...WALL_RULES,
  ...CAST_RULES,
  ...STOCK_RULES,
  ...PEOPLE_RULES,
  ...TRANSPORT_RULES,
  ...POWER_RULES,
];
