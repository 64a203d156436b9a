import { countOf, formatKg, formatSum } from '@quarry/core/grid';
import {
  SEAM_WORDS,
  adoptCutting,
  partitionDiffs,
  inDisplay,
  setModules,
  type Arrangement,
  type Cutting,
  type Alternative,
} from '@quarry/core/cut';
import { listOf } from '@quarry/core/document';
import { useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { basesInWords } from '../../ui/words.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** A alternative one looks at: to be taken, whole or in part. */
export function Found({
  alternative,
  cutting,
  origin,
  plans,
  busy,
  onTaken,
}: {
  alternative: Alternative;
  cutting: Cutting;
  origin: { x: number; y: number };
  plans: boolean;
  busy: boolean;
  onTaken: () => void;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const arrangement = useWorkerQuery(
    (core) => core.alternative(cutting, origin),
    `${alternative} ${cutting.modules.length} ${cutting.cost.total}`,
  );
  const modules = listOf(scene, 'module').filter(({ locked }) => !locked);
  const there = inDisplay(scene, cutting, origin);
  const blocks = modules.length > 0 ? partitionDiffs(modules, there) : [];
  const take = () =>
    edit.change(
      `took a cutting of ${countOf(cutting.modules.length, 'module')}`,
      adoptCutting(scene, cutting, origin),
    ) && onTaken();
  return (
    <>
      <div className="flex gap-2 pt-2">
        <button
          type="button"
          className="btn btn-sm btn-primary flex-1"
          disabled={!plans || busy}
          title={plans ? undefined : 'Planners and owners take a cutting'}
          onClick={take}
        >
          Use this cutting
        </button>
      </div>
      {blocks.length > 1 && (
        <>
          <Heading aside="each by itself">Or a part of it</Heading>
          <ul>
            {blocks.map((block) => {
              const here = block.here.map(({ name }) => name).join(', ');
              return (
                <li key={here} className="flex items-center gap-2 border-b hair py-0.5">
                  <span className="flex-1">
                    {here}{' '}
                    <span className="ink-2 text-xs">
                      {countOf(block.here.length, 'module')} becomes {block.there.length}
                    </span>
                  </span>
                  <button
                    type="button"
                    className="btn btn-xs"
                    disabled={!plans || busy}
                    onClick={() =>
                      edit.change(
                        `took a part of a cutting: ${here}`,
                        setModules(scene, block.there, block.here),
                      )
                    }
                  >
                    Take
                  </button>
                </li>
              );
            })}
          </ul>
        </>
      )}
      {arrangement && <Over arrangement={arrangement} />}
      <Heading aside={countOf(cutting.modules.length, 'module')}>Its modules</Heading>
      <DataTable
        label="Modules of the cutting"
        hideHead
        rows={cutting.modules}
        keyOf={({ id }) => id}
        columns={[
          { head: 'Module', cell: ({ id }) => <span className="fig font-medium">{id}</span> },
          { head: 'Size', cell: ({ w, d }) => <span className="fig">{`${w} × ${d} studs`}</span> },
          {
            head: 'Mass',
            number: true,
            cell: ({ massKg }) => (massKg === undefined ? '' : formatKg(1000 * massKg)),
          },
          { head: 'Bases', cell: ({ bases }) => <span className="fig">{basesInWords(bases)}</span> },
        ]}
      />
    </>
  );
}

/** What the seams lie over, what is bought, and which passage is tightest. */
export function Over({ arrangement }: { arrangement: Arrangement }) {
  const { say } = useMeasureFormat();
  const { over, bought, tightest } = arrangement;
  return (
    <>
      <Heading aside={`${over.reduce((sum, { studs }) => sum + studs, 0).toLocaleString('en')} studs`}>
        Seams lie over
      </Heading>
      <dl>
        {over.map(({ over: what, studs }) => (
          <DefinitionRow key={what} label={SEAM_WORDS[what]}>
            <span className={what === 'forbidden' ? 'text-error font-semibold' : ''}>{studs} studs</span>
          </DefinitionRow>
        ))}
      </dl>
      {arrangement.rim.studs > 0 && (
        <DefinitionRow
          label="Rim of plates"
          note={`${countOf(arrangement.rim.studs, 'stud')}, ${countOf(arrangement.rim.pieces, 'plate')}, tied from above over the joint`}
        >
          about {formatSum(arrangement.rim.cost)}
        </DefinitionRow>
      )}
      <Heading>To buy</Heading>
      <p>
        {bought.length === 0
          ? 'Nothing: the bases owned are enough.'
          : bought.map(({ w, d, count }) => `${count} × ${w}×${d}`).join(', ')}
      </p>
      {tightest && (
        <p className="ink-2 text-xs pt-1">
          Tightest: {tightest.module} through the {tightest.passage.name},{' '}
          {tightest.spare < 0
            ? `${say(Math.round(-tightest.spare), 'mm')} too large`
            : `${say(Math.round(tightest.spare), 'mm')} clearance`}
          .
        </p>
      )}
    </>
  );
}
