import { formatPlates } from '../grid/index.ts';
import { DISTINCT_DELTA_E, colourDeltaE, colourName } from '../catalogue/index.ts';
import { WINDS, customGroundOf, displayOf, layersThick, monthWord } from '../document/index.ts';
import { usualLeaf } from '../terrain/index.ts';
import { namedThing, patch, type FixesOf } from './fix.ts';

// Remedies for what dresses the display: flags, leaves, colours, and the layers of its grounds.

export const DRESS_FIXES: Readonly<Record<string, FixesOf>> = {
  'flag-wind': (scene, finding) => {
    const flag = namedThing(scene, finding, 'flag');
    const { wind } = displayOf(scene);
    if (!flag || wind === null) return [];
    const heading = WINDS[(WINDS.indexOf(wind) + WINDS.length / 2) % WINDS.length];
    return [{ words: `Turn “${flag.name}” with the wind`, changes: [patch('flag', flag, { heading })] }];
  },
  'door-blends': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    if (!plot) return [];
    return ['chalk', 'soot']
      .filter((colour) => colourDeltaE(colour, plot.wallColour) >= DISTINCT_DELTA_E)
      .map((colour) => ({
        words: `Make the doors and windows of ${plot.name} ${colourName(colour)}`,
        changes: [patch('plot', plot, { letInColour: colour })],
      }));
  },
  'layers-thin': (scene, { things: [ref], numbers }) => {
    const own = ref && customGroundOf(scene, ref.id);
    if (!own) return [];
    // Where a number of layers lies, those that reach highest; the lowest go first, and the cover takes a plate.
    const plates = own.layers.map((layer) => layer.plates);
    const byReach = own.layers
      .map(({ upTo }, i) => ({ upTo: upTo ?? Infinity, i }))
      .toSorted((a, b) => b.upTo - a.upTo || a.i - b.i);
    for (let many = 1; many <= plates.length; many++) {
      let room = (numbers[`least${many}`] ?? Infinity) - 1;
      for (const { i } of byReach.slice(0, many).toSorted((a, b) => a.i - b.i)) {
        plates[i] = Math.min(plates[i], room);
        room -= plates[i];
      }
    }
    const layers = own.layers.flatMap((layer, i) => (plates[i] > 0 ? [{ ...layer, plates: plates[i] }] : []));
    return [
      {
        words: `Make the layers of “${own.name}” ${formatPlates(layersThick({ layers }))} thick`,
        changes: [patch('customGround', own, { layers })],
      },
    ];
  },
  'leaves-unwritten': (scene) => {
    const display = displayOf(scene);
    const { month, leaves } = display;
    const known = leaves[0]?.month;
    if (month === null)
      return known === undefined
        ? []
        : [
            {
              words: `Show the display in ${monthWord(known)}`,
              changes: [patch('display', display, { month: known })],
            },
          ];
    const tones = [{ colour: usualLeaf(scene), share: 1 }];
    return [
      {
        words: `Write ${colourName(usualLeaf(scene))} for the leaves of ${monthWord(month)}`,
        changes: [patch('display', display, { leaves: [...leaves, { month, tones }] })],
      },
    ];
  },
  'plant-season': (scene, finding) => {
    const { season } = displayOf(scene);
    const tree = namedThing(scene, finding, 'tree');
    if (season === null || !tree) return [];
    return [{ words: `Give “${tree.name}” leaves of ${season}`, changes: [patch('tree', tree, { season })] }];
  },
};
