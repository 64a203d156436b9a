import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import loadHighs from 'highs';
import { present } from '@quarry/core/grid';
import { evaluateRules } from '@quarry/core/findings';
import { cutProblemOf, cutProblemSchema, solveCut, type CutProblem } from '@quarry/core/cut';
import {
  OUTLINE_TEXT,
  planDrawing,
  surveyDrawing,
  writeAsc,
  writeDxf,
  writeSvg,
  type DrawingUnits,
} from '@quarry/core/formats';
import { CountCache, countedRelief } from '@quarry/core/masonry';
import { compile } from '@quarry/core/terrain';
import { materialsOf } from '@quarry/core/materials';
import { compileRelief } from '@quarry/core/terrain';
import { MAX_FILE_BYTES, readFile, sceneInVersion, writeFile, type Scene } from '@quarry/core/document';
import { withPlace } from '@quarry/core/venue';
import { calculate, isCalculator } from './bench.ts';
import { BadInput, complain, readText } from './input.ts';
import { carried, columns, pieces, stands } from './levels.ts';
import { buy, masonry } from './materials.ts';
import { sight } from './sight.ts';
import { pack, schedule } from './transport.ts';

const USAGE = `quarry: the core's stages from a shell

  quarry check <display.quarry.json> [--today 2031-06-01]   findings; exit 1 when one of severity error is not kept
  quarry cut   <problem.json | display.quarry.json> [--seconds 10] [--seed 1]   modules and bases; exit 1 when there is no answer
  quarry convert <display.quarry.json> <out.svg | out.dxf | out.asc | out.quarry.json>
                 [--sheet survey|plan] [--units mm|in] [--place id]   outlines of its place or its plan in true
                                                            millimetres, its heights stud by stud, or the file tidied
  What reads a display takes --version id: the display in that version instead of its base.

  quarry masonry <heights.asc> --method solid|raft|filler|stepped|frame|moulded [--colour any] [--deck 16] [--pieces]
                                                            layers of pieces as CSV, heights in plates
  quarry sight <heights.asc> <eyes.csv>                     how many eyes (x,y in studs, z in mm) see each stud, as a grid
  quarry columns <display.quarry.json>                      solid pieces over each stud as CSV, plates above the datum
  quarry carried <display.quarry.json>                      everything that is carried by itself as CSV, mm and grams
  quarry stands <display.quarry.json> [--seconds 10]        how each module stands by its counted pieces, as CSV;
                                                            exit 1 when one falls
  quarry pieces <display.quarry.json> [--of id]             every counted piece of the ground, decks and bridges as CSV
  quarry source <needs.csv> <offers.csv> [--max-orders n] [--seconds 10]   the cheapest complete buy as CSV;
                                                            exit 1 when something is not covered
  quarry pack <items.csv> --space w,d,h [--max-kg n] [--trips n] [--seconds 5] [--seed 1]
                                                            pieces into as few trips as are found as CSV, mm, the door
                                                            at y = 0; exit 1 when something is left out
  quarry schedule <tasks.csv> --hands n [--seed 1]          a short timetable as CSV, minutes; exit 1 when there is none
  quarry fit  [--studs 1:16] [--plates 1:40] [--within 0.05]  stacks of plates on their side that close against studs
  quarry ring --pieces 24 --width 4                         the ring of so many pieces, so many studs wide
  quarry roof --span 16 --pitch slope-2x2-45                courses and ridge of a roof of two sides
  quarry turn --within 13 [--error 0]                       turned walls whose ends meet studs, error in mm
`;

/** Verbs that read a display, and so one of its versions. */
const OF_DISPLAYS: readonly string[] = ['convert', 'check', 'cut', 'columns', 'carried', 'stands', 'pieces'];

const read = (path: string) => readText(path, MAX_FILE_BYTES);

/** A display as it is, or in one of its versions. @throws BadInput for what is no display or has no such version */
function readScene(path: string, text: string, version: string | undefined): Scene {
  const reading = readFile(text);
  if (!reading.ok) throw new BadInput(`${path}: ${reading.error}`);
  const { scene } = reading;
  if (version === undefined) return scene;
  if (!Object.hasOwn(scene.version, version)) {
    const known = Object.keys(scene.version).sort().join(', ') || 'none';
    throw new BadInput(`--version ${version}: the display has no such version; it has ${known}.`);
  }
  return sceneInVersion(scene, version).scene;
}

function readProblem(path: string, version: string | undefined): CutProblem | string[] {
  const text = read(path);
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new BadInput(`${path}: not JSON: ${error instanceof Error ? error.message : String(error)}.`);
  }
  if (typeof raw === 'object' && raw !== null && 'format' in raw) {
    const scene = readScene(path, text, version);
    const stated = cutProblemOf(scene, countedRelief(scene));
    return stated.ok ? stated.problem : stated.reasons;
  }
  const problem = cutProblemSchema.safeParse(raw);
  if (problem.success) return problem.data;
  const issue = present(problem.error.issues[0], 'the first fault');
  throw new BadInput(`${path}: ${issue.path.join('.') || 'the problem'}: ${issue.message}.`);
}

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);

async function cut(problem: CutProblem | string[], seconds: number, seed: number): Promise<number> {
  if (Array.isArray(problem)) return complain(problem);
  const highs = await loadHighs();
  const answer = solveCut(problem, { seconds, seed, now: () => performance.now(), highs });
  if (!answer.feasible) return complain(answer.reasons);
  print({ ...answer.cutting, seconds: Number(answer.cutting.seconds.toFixed(2)) });
  return 0;
}

function check(scene: Scene, today: string | undefined): number {
  // As the pages judge it: by the mass of counted ground.
  const relief = countedRelief(scene);
  const rows = relief.counted ? materialsOf(scene, compile(scene), new CountCache())?.rows : undefined;
  const findings = evaluateRules(scene, {
    relief,
    ...(today === undefined ? {} : { today }),
    ...(rows ? { rows } : {}),
  });
  print(findings);
  return findings.some(({ severity, accepted }) => severity === 'error' && !accepted) ? 1 : 0;
}

function convert(
  whole: Scene,
  to: string,
  units: DrawingUnits,
  place: string | undefined,
  sheet: 'plan' | 'survey',
): number {
  if (place !== undefined && !whole.place[place])
    throw new BadInput(`--place ${place}: the display has no such place.`);
  const scene = place === undefined ? whole : withPlace(whole, place);
  const drawing = () =>
    sheet === 'plan'
      ? planDrawing(scene, compileRelief(scene), { textSize: 14 })
      : surveyDrawing(scene, { units, textSize: OUTLINE_TEXT });
  const writers: [string, () => string][] = [
    ['.svg', () => writeSvg(drawing())],
    ['.dxf', () => writeDxf(drawing())],
    ['.asc', () => writeAsc(compileRelief(whole))],
    ['.quarry.json', () => writeFile(whole)],
  ];
  const writer = writers.find(([ending]) => to.endsWith(ending));
  if (!writer)
    throw new BadInput(
      `${to}: no format for this ending; there are ${writers.map(([ending]) => ending).join(', ')}.`,
    );
  try {
    writeFileSync(to, writer[1]());
  } catch (error) {
    throw new BadInput(
      `${to}: cannot be written (${error instanceof Error ? error.message : String(error)}).`,
    );
  }
  return 0;
}

/**
 * Runs one verb: results go to standard output, complaints to standard error.
 * @param args as typed in a shell, after the name of the program
 * @returns the exit code: 0 done, 1 findings of severity error or no answer, 2 bad input
 */
export async function quarry(args: readonly string[]): Promise<number> {
  try {
    return await run(args);
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    return 2;
  }
}

async function run(args: readonly string[]): Promise<number> {
  const [calculator, ...rest] = args;
  if (isCalculator(calculator) && !rest.includes('--help')) {
    print(calculate(calculator, rest));
    return 0;
  }
  let parsed;
  try {
    parsed = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        seconds: { type: 'string' },
        today: { type: 'string' },
        units: { type: 'string' },
        place: { type: 'string' },
        seed: { type: 'string' },
        sheet: { type: 'string' },
        method: { type: 'string' },
        colour: { type: 'string' },
        deck: { type: 'string' },
        pieces: { type: 'boolean' },
        of: { type: 'string' },
        'max-orders': { type: 'string' },
        space: { type: 'string' },
        'max-kg': { type: 'string' },
        trips: { type: 'string' },
        hands: { type: 'string' },
        version: { type: 'string' },
        help: { type: 'boolean' },
      },
    });
  } catch (error) {
    throw new BadInput(error instanceof Error ? error.message : String(error));
  }
  const { positionals, values } = parsed;
  const [verb, path, second, extra] = positionals;
  if (values.help || verb === undefined) {
    process.stdout.write(USAGE);
    return values.help ? 0 : 2;
  }
  const files = ['convert', 'source', 'sight'].includes(verb) ? 2 : 1;
  if (path === undefined || (second === undefined) === (files === 2) || extra !== undefined)
    throw new BadInput(`“${verb}” takes ${files === 2 ? 'two files' : 'one file'}.\n\n${USAGE}`);
  const seconds = Number(values.seconds ?? (verb === 'pack' ? 5 : 10));
  if (!(seconds > 0 && seconds <= 3600))
    throw new BadInput(`--seconds ${values.seconds}: must be above 0 and at most 3600.`);
  const seed = Number(values.seed ?? 1);
  if (!Number.isInteger(seed) || seed < 1 || seed > 2 ** 31)
    throw new BadInput(`--seed ${values.seed}: must be a whole number from 1 to 2147483648.`);
  if (values.today !== undefined && !/^\d{4}-\d{2}-\d{2}$/.test(values.today))
    throw new BadInput(`--today ${values.today}: must be a date such as 2031-06-01.`);
  const units = values.units ?? 'mm';
  if (units !== 'mm' && units !== 'in') throw new BadInput(`--units ${units}: must be mm or in.`);
  const sheet = values.sheet ?? 'survey';
  if (sheet !== 'plan' && sheet !== 'survey') throw new BadInput(`--sheet ${sheet}: must be plan or survey.`);
  const { version } = values;
  if (version !== undefined && !OF_DISPLAYS.includes(verb))
    throw new BadInput(`--version ${version}: “${verb}” reads no display.`);
  if (version !== undefined && second?.endsWith('.quarry.json'))
    throw new BadInput(`--version ${version}: a display file holds the base with all its versions.`);
  const scene = () => readScene(path, read(path), version);
  if (verb === 'convert') return convert(scene(), second ?? '', units, values.place, sheet);
  if (verb === 'check') return check(scene(), values.today);
  if (verb === 'cut') return cut(readProblem(path, version), seconds, seed);
  if (verb === 'columns') return columns(scene());
  if (verb === 'carried') return carried(scene());
  if (verb === 'stands') return stands(scene(), seconds);
  if (verb === 'pieces') return pieces(scene(), values.of);
  if (verb === 'source') return buy(path, second ?? '', seconds, values['max-orders']);
  if (verb === 'sight') return sight(path, second ?? '');
  if (verb === 'pack') {
    const { space, 'max-kg': maxKg, trips } = values;
    return pack(path, { space, maxKg, trips, seconds, seed });
  }
  if (verb === 'schedule') return schedule(path, values.hands, seed);
  if (verb === 'masonry') {
    const { method, colour = 'any', deck = '16', pieces: placed = false } = values;
    if (method === undefined) throw new BadInput('“masonry” needs --method, such as --method raft.');
    return masonry(path, { method, colour, deck, pieces: placed });
  }
  throw new BadInput(`“${verb}” is no verb.\n\n${USAGE}`);
}
