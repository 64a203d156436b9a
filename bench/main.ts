/** `npm run bench`: every figure the design sets, measured on this machine. A benchmark never fails a build. */
import { benchCrew } from './crew.ts';
import { benchCut } from './cut.ts';
import { benchFindings } from './findings.ts';
import { benchMaterials } from './materials.ts';
import { benchProgress } from './progress.ts';
import { benchRelief } from './relief.ts';
import { benchServer } from './server.ts';
import { benchSight } from './sight.ts';
import { benchSite } from './site.ts';
import { benchStability } from './stability.ts';
import { benchStructures } from './structures.ts';
import { benchTransport } from './transport.ts';
import { calibration, printTable, type Row } from './table.ts';
import { benchWeb } from './web.ts';

const parts: Record<string, () => Promise<Row[]>> = {
  cut: benchCut,
  relief: () => Promise.resolve(benchRelief()),
  findings: () => Promise.resolve(benchFindings()),
  materials: benchMaterials,
  structures: () => Promise.resolve(benchStructures()),
  stability: benchStability,
  sight: () => Promise.resolve(benchSight()),
  transport: () => Promise.resolve(benchTransport()),
  site: benchSite,
  progress: () => Promise.resolve(benchProgress()),
  server: benchServer,
  crew: benchCrew,
  web: benchWeb,
};

async function main() {
  const names = process.argv.slice(2);
  let pace = calibration();
  const rows: Row[] = [
    {
      what: 'calibration: a fixed loop of 20 million steps',
      measured: pace,
      unit: 'ms',
      better: 'less',
    },
  ];
  for (const [name, run] of Object.entries(parts)) {
    if (names.length > 0 && !names.includes(name)) continue;
    process.stderr.write(`${name} …\n`);
    const measured = await run();
    const after = calibration();
    rows.push(...measured.map((row) => ({ ...row, pace: (pace + after) / 2 })));
    pace = after;
  }
  printTable(rows);
}
main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
