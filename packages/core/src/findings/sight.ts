import { listOf } from '../document/index.ts';
import { Lookout, WATCHERS, publicEyes } from '../visibility/index.ts';
import { percent } from './figures.ts';
import type { FindingDraft, Rule } from './finding.ts';

// What visitors cannot see. Buildings are looked at on Sight: that takes too long for every change.

const sceneUnseen: Rule = {
  id: 'scene-unseen',
  title: 'Visitors cannot see a small scene',
  basis:
    'Straight lines to the faces of its figures from eyes of adults, of people in a wheelchair and of children, each half metre along the sides the display is looked at from, as far off as the nearest barrier. When nobody sees them it is a warning, when only adults do a note.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief, bodies }) {
    const figures = listOf(scene, 'figure');
    const eyes = figures.length > 0 ? publicEyes(scene, relief) : null;
    if (!eyes) return [];
    const lookout = new Lookout(scene, relief, eyes, bodies());
    return figures.flatMap((figure): FindingDraft[] => {
      const { free, hiders } = lookout.look('figure', figure.id);
      const [adult, seated, child] = WATCHERS.map((who) => 100 * (free[who] ?? 0));
      if (seated > 0 || child > 0) return [];
      const places = eyes.by.adult.length;
      const [hider] = hiders;
      const by = hider ? ` “${hider.name}” cuts off ${percent(100 * hider.share)} of the lines to them.` : '';
      return [
        {
          severity: adult > 0 ? 'note' : 'warning',
          sentence:
            adult > 0
              ? `Only adults see the faces of “${figure.name}”, from ${percent(adult)} of ${places} places; 0 % of those in a wheelchair and of children do.${by}`
              : `Nobody sees the faces of “${figure.name}”: 0 of ${places} places, at three heights of eyes.${by}`,
          remedy:
            'Move it, raise what it stands on, or lower what is before it; Sight tells what would free it.',
          place: { x: figure.x, y: figure.y },
          things: [
            { kind: 'figure', id: figure.id },
            ...(hider && hider.id !== '' ? [{ kind: hider.kind, id: hider.id }] : []),
          ],
          numbers: { adult: Math.round(adult), seated, child },
        },
      ];
    });
  },
};

export const SIGHT_RULES: readonly Rule[] = [sceneUnseen];
