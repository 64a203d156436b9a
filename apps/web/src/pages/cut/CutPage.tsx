import { counted } from '@quarry/core/lattice';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { adoptCutting, cutProblemOf, type Cutting } from '@quarry/core/cut';
import { displayOf, listOf, reduce, type Scene } from '@quarry/core/scene';
import { Board } from '../../board/Board.tsx';
import { useDisplay, useEdit, useLink, usePlans } from '../../data/useDisplay.tsx';
import { FindingItem } from '../../frame/Findings.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { ModuleSize } from '../../ui/ModuleSize.tsx';
import { Basis, Empty, Failure, Heading, Line } from '../../ui/parts.tsx';
import { basesInWords } from '../../ui/words.ts';
import { useSurvey } from '../../workers/survey.tsx';
import { useCutRun, type CutRun } from '../../workers/useCutRun.ts';

export function CutPage() {
  const scene = useDisplay(({ scene }) => scene);
  const judgement = useSurvey(({ judgement }) => judgement);
  const ground = useSurvey(({ ground }) => ground);
  const edit = useEdit();
  const plans = usePlans();
  const link = useLink();
  const { run, start, stop, clear } = useCutRun();
  const [seconds, setSeconds] = useState(10);
  const display = displayOf(scene);
  const stated = useMemo(() => cutProblemOf(scene), [scene]);
  const best = run.state === 'running' || run.state === 'done' ? run.best : null;
  const preview = useMemo(
    () => (best && stated.ok ? withCutting(scene, best, stated.origin) : scene),
    [best, scene, stated],
  );
  const modules = listOf(scene, 'module');
  const findings = judgement?.findings.filter(({ page, accepted }) => page === 'cut' && !accepted) ?? [];
  const set = (fields: Partial<typeof display>) =>
    edit.patch('changed the limits of the cutting', 'display', display, fields);
  const take = (cutting: Cutting) => {
    if (
      stated.ok &&
      edit.change(
        `took a cutting of ${counted(cutting.modules.length, 'module')}`,
        adoptCutting(scene, cutting, stated.origin),
      )
    )
      clear();
  };

  return (
    <div className="h-full grid lg:grid-cols-[284px_minmax(0,1fr)_300px] min-h-0">
      <section aria-label="The problem" className="border-r hair bg-base-100 overflow-auto px-3 py-2.5">
        <Heading>Cut into modules</Heading>
        <ModuleSize display={display} disabled={!plans} onSet={set} />
        <NumberField
          label="One module more costs"
          unit={display.currency}
          value={display.moduleWeight}
          min={0}
          max={1e6}
          disabled={!plans}
          onCommit={(moduleWeight) => set({ moduleWeight: moduleWeight ?? 5 })}
        />
        <NumberField
          label="A stud of seam costs"
          unit={display.currency}
          value={display.seamWeight}
          min={0}
          max={1e6}
          disabled={!plans}
          onCommit={(seamWeight) => set({ seamWeight: seamWeight ?? 0.05 })}
        />
        <NumberField
          label="Search for at most"
          unit="s"
          value={seconds}
          min={1}
          max={120}
          onCommit={(value) => setSeconds(value ?? 10)}
        />
        {!stated.ok && (
          <div role="alert" className="text-error py-2">
            {stated.reasons.map((reason) => (
              <p key={reason}>{reason}</p>
            ))}
          </div>
        )}
        {stated.ok && (
          <p className="ink-2 text-xs py-2">
            {counted(stated.problem.keep?.length ?? 0, 'building')} kept whole;{' '}
            {stated.problem.bases.map(({ w, d, stock }) => `${stock} × ${w}×${d}`).join(', ')} owned.{' '}
            <Link className="link" to={`/d/${link.id}/stockpile`}>
              Change the bases
            </Link>
          </p>
        )}
        <div className="flex gap-2 py-1">
          {run.state === 'running' ? (
            <button type="button" className="btn btn-sm btn-primary flex-1" onClick={stop}>
              Stop, keep the best
            </button>
          ) : (
            <button
              type="button"
              className="btn btn-sm btn-primary flex-1"
              disabled={!stated.ok}
              onClick={() => stated.ok && start(stated.problem, seconds)}
            >
              Cut
            </button>
          )}
        </div>
        <RunNote run={run} />
        {run.state === 'none' && <Failure title="No cutting" message={run.reasons.join(' ')} />}
        <Basis>
          Cost = price of the bases to buy + what one module costs × modules + what a stud of seam costs ×
          studs of seam (three times as much across water). A first answer comes from the best straight cuts;
          then an exact solver improves it and proves how low the cost can go at best. Each answer is checked
          by a second program before it is shown.
        </Basis>
        <Heading>Findings of the modules</Heading>
        {findings.length === 0 && (
          <p className="ink-2">None: every module passes, fits and cuts no building.</p>
        )}
        <ul className="flex flex-col gap-2">
          {findings.map((finding) => (
            <FindingItem key={finding.key} finding={finding} />
          ))}
        </ul>
      </section>
      <div className="min-h-64 min-w-0 relative">
        <Board
          scene={preview}
          ground={ground}
          label={
            best
              ? `The cutting found: ${best.modules.length} modules`
              : `The modules as they are: ${modules.length}`
          }
        />
        <p className="absolute left-8 top-7 bg-base-100 border hair px-2 py-0.5 text-xs">
          {best ? 'As found, not taken yet' : modules.length > 0 ? 'As it is now' : 'Not cut yet'}
        </p>
      </div>
      <section aria-label="The cutting" className="border-l hair bg-base-100 overflow-auto px-3 py-2.5">
        {best ? (
          <Found
            cutting={best}
            currency={display.currency}
            plans={plans}
            busy={run.state === 'running'}
            onTake={() => take(best)}
            onDrop={clear}
          />
        ) : (
          <AsItIs scene={scene} />
        )}
      </section>
    </div>
  );
}

function withCutting(scene: Scene, cutting: Cutting, origin: { x: number; y: number }): Scene {
  const reduction = reduce(scene, adoptCutting(scene, cutting, origin));
  return reduction.ok ? reduction.scene : scene;
}

function RunNote({ run }: { run: CutRun }) {
  if (run.state === 'idle' || run.state === 'none') return null;
  const best = run.best;
  const words = best
    ? `${best.proven ? 'Proven: no cutting costs less.' : `At most ${(best.gap * 100).toFixed(1)} % above the least possible.`} ${best.seconds.toFixed(1)} s.`
    : 'Looking for a first answer …';
  return (
    <div role="status" className="py-1">
      {run.state === 'running' && (
        <progress className="progress progress-primary w-full" aria-label="Searching" />
      )}
      <p>
        {words} {run.state === 'done' && run.stopped && 'Stopped.'}
      </p>
    </div>
  );
}

function Found({
  cutting,
  currency,
  plans,
  busy,
  onTake,
  onDrop,
}: {
  cutting: Cutting;
  currency: string;
  plans: boolean;
  busy: boolean;
  onTake: () => void;
  onDrop: () => void;
}) {
  const { cost } = cutting;
  const money = (value: number) => `${value.toFixed(2)} ${currency}`;
  return (
    <>
      <Heading aside={counted(cutting.modules.length, 'module')}>Cutting found</Heading>
      <dl>
        <Line label="Bases to buy">{money(cost.bases)}</Line>
        <Line label="Modules">{money(cost.modules)}</Line>
        <Line label="Seams">{money(cost.seams)}</Line>
        <Line label="Cost in all">{money(cost.total)}</Line>
        <Line
          label="Proven least"
          note={cutting.proven ? 'this is the best there is' : `gap ${(cutting.gap * 100).toFixed(1)} %`}
        >
          {money(cutting.bound)}
        </Line>
      </dl>
      <div className="flex gap-2 py-2">
        <button
          type="button"
          className="btn btn-sm btn-primary flex-1"
          disabled={!plans || busy}
          title={plans ? undefined : 'Planners and owners take a cutting'}
          onClick={onTake}
        >
          Take this cutting
        </button>
        <button type="button" className="btn btn-sm" onClick={onDrop}>
          Drop it
        </button>
      </div>
      <Heading>To buy</Heading>
      {cutting.bought.length === 0 ? (
        <p className="ink-2">Nothing: the bases owned are enough.</p>
      ) : (
        <dl>
          {cutting.bought.map(({ w, d, count }) => (
            <Line key={`${w} ${d}`} label={`Base ${w}×${d}`}>
              {count}
            </Line>
          ))}
        </dl>
      )}
      <ModuleTable modules={cutting.modules.map(({ id, ...module }) => ({ name: id, ...module }))} />
    </>
  );
}

function AsItIs({ scene }: { scene: Scene }) {
  const modules = listOf(scene, 'module');
  if (modules.length === 0)
    return (
      <Empty title="Not cut yet">
        Press Cut: the scene is divided into modules of at most the agreed size, on bases you own or can buy,
        without cutting a building.
      </Empty>
    );
  return (
    <>
      <Heading aside={`${modules.length}`}>Modules</Heading>
      <ModuleTable modules={modules} />
    </>
  );
}

function ModuleTable({
  modules,
}: {
  modules: readonly { name: string; w: number; d: number; bases: readonly { w: number; d: number }[] }[];
}) {
  return (
    <table className="table table-xs mt-2">
      <thead>
        <tr>
          <th scope="col" className="ink-2 text-xs">
            Module
          </th>
          <th scope="col" className="ink-2 text-xs text-right">
            Studs
          </th>
          <th scope="col" className="ink-2 text-xs">
            Bases
          </th>
        </tr>
      </thead>
      <tbody>
        {modules.map((module) => (
          <tr key={module.name}>
            <th scope="row" className="fig">
              {module.name}
            </th>
            <td className="fig text-right whitespace-nowrap">
              {module.w} × {module.d}
            </td>
            <td className="fig">{basesInWords(module.bases)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
