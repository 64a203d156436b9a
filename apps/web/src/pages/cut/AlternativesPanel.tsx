import { countOf, type Rect } from '@quarry/core/grid';
import { Link } from 'react-router';
import {
  ALTERNATIVES,
  ALTERNATIVE_WORDS,
  inDisplay,
  type Cutting,
  type Alternative,
  type SceneProblem,
} from '@quarry/core/cut';
import { RIMS, displayOf, listOf } from '@quarry/core/document';
import { useDisplay, useEdit, useIsPlanner, useLink, useScene } from '../../data/useDisplay.tsx';
import { FindingItem } from '../../frame/FindingItem.tsx';
import { CheckField, NumberField, SelectField } from '../../ui/fields.tsx';
import { ModuleSize } from '../../ui/ModuleSize.tsx';
import { Basis, Failure, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import type { useAlternatives } from '../../workers/useAlternatives.ts';
import { Found, Over } from './FoundPart.tsx';
import { FoundRow, AlternativeRow } from './AlternativeRows.tsx';

/** How long all alternatives together may be looked for, s. */
const SECONDS = 30;

/** Rival cuttings side by side, each with what it costs, weighs and crosses, and how far it is from a proven bound. */
export function AlternativesPanel({
  stated,
  alternatives,
  chosen,
  onChoose,
}: {
  stated: SceneProblem | null;
  alternatives: ReturnType<typeof useAlternatives>;
  chosen: Alternative | null;
  onChoose: (alternative: Alternative | null) => void;
}) {
  const scene = useScene('module');
  const plans = useIsPlanner();
  const { run, start, clear } = alternatives;
  const now = useWorkerQuery((core) => core.arrangement());
  const judgement = useDerived(({ judgement }) => judgement);
  const findings = judgement?.findings.filter(({ page, accepted }) => page === 'cut' && !accepted) ?? [];
  const found = chosen ? run.found[chosen] : undefined;
  const any = Object.keys(run.found).length > 0;
  return (
    <>
      <Limits stated={stated} isOpen={!any && listOf(scene, 'module').length === 0} />
      {stated && !stated.ok && (
        <div role="alert" className="text-error py-2">
          {stated.reasons.map((reason) => (
            <p key={reason}>{reason}</p>
          ))}
        </div>
      )}
      <CutButtons
        alternatives={alternatives}
        any={any}
        onStart={
          stated?.ok
            ? () => {
                onChoose('balanced');
                start(stated.problem, SECONDS);
              }
            : null
        }
        onDiscard={() => {
          clear();
          onChoose(null);
        }}
      />
      {run.reasons.length > 0 && <Failure title="No cutting" message={run.reasons.join(' ')} />}
      {stated?.ok && stated.remarks.length > 0 && (
        <details className="ink-2 text-xs pb-1">
          <summary className="cursor-pointer">
            {countOf(stated.remarks.length, 'thing')} to know about the bases’ steps
          </summary>
          <ul>
            {stated.remarks.map((remark) => (
              <li key={remark}>{remark}</li>
            ))}
          </ul>
        </details>
      )}
      <CuttingsTable {...{ stated, run, now, chosen, onChoose }} />
      <Basis>
        Cost = price of the bases to buy + what a module costs × modules + what a stud of seam costs × each
        stud × (1 + what it crosses). “Above” is how far a cutting lies over the proven least of the balanced
        one: the linear relaxation, a bound by prices, and an exact solver. Clearance: at the tightest
        passage; negative: by how much a module is too large for it. A rim of plates is priced by itself,
        under the table. Each cutting is checked by a second program before it is shown. Masses are as
        carried: the ground as counted, pinned buildings by their lists or plain shells.
      </Basis>
      {found && chosen && (
        <p className="text-xs py-1">{proofOf(chosen, found.cutting, run.bound, found.cost)}</p>
      )}
      {found && chosen && stated?.ok ? (
        <Found
          alternative={chosen}
          cutting={found.cutting}
          origin={stated.origin}
          plans={plans}
          busy={run.state === 'running'}
          onTaken={() => {
            clear();
            onChoose(null);
          }}
        />
      ) : (
        <>
          {now && now.modules > 0 && <Over arrangement={now} />}
          <Heading>Findings of the modules</Heading>
          {findings.length === 0 && (
            <p className="ink-2">None: every module passes, fits and cuts no building.</p>
          )}
          <ul className="flex flex-col gap-2">
            {findings.map((finding) => (
              <FindingItem key={finding.key} finding={finding} />
            ))}
          </ul>
        </>
      )}
    </>
  );
}

/** What limits modules, and what they are weighed by. */
function Limits({ stated, isOpen }: { stated: SceneProblem | null; isOpen: boolean }) {
  const scene = useScene('display');
  const edit = useEdit();
  const plans = useIsPlanner();
  const link = useLink();
  const { tell } = useMeasureFormat();
  const display = displayOf(scene);
  const set = (fields: Partial<typeof display>) =>
    edit.patch('changed the limits of the cutting', 'display', display, fields);
  return (
    <details open={isOpen} className="border-b hair pb-1">
      <summary className="cursor-pointer font-semibold text-[13px]">
        Limits and weights{' '}
        <span className="ink-2 font-normal text-xs">
          {display.moduleMaxW} × {display.moduleMaxD} studs
          {display.moduleMaxKg === null ? '' : `, ${display.moduleMaxKg} kg`}
          {display.moduleReason && ` · ${tell(display.moduleReason)}`}
        </span>
      </summary>
      <ModuleSize display={display} disabled={!plans} onSet={set} />
      <NumberField
        label="A module weighs at most"
        unit="kg"
        value={display.moduleMaxKg}
        min={0.1}
        max={1000}
        disabled={!plans}
        onCommit={(moduleMaxKg) => set({ moduleMaxKg })}
      />
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
      <SelectField
        label="Edges that bases do not cover"
        value={display.rim}
        disabled={!plans}
        options={RIMS.map((value) => ({
          value,
          word: { plates: 'Rim of plates', bare: 'Left bare' }[value],
        }))}
        onCommit={(rim) => set({ rim })}
      />
      <CheckField
        label="Modules keep to one section"
        value={display.cutAtSections}
        disabled={!plans}
        onCommit={(cutAtSections) => set({ cutAtSections })}
      />
      {stated?.ok && (
        <p className="ink-2 text-xs py-1">
          {countOf(stated.problem.keep?.length ?? 0, 'building')} kept whole;{' '}
          {stated.problem.bases.map(({ w, d, stock }) => `${stock} × ${w}×${d}`).join(', ')} to hand.{' '}
          <Link className="link" to={`/d/${link.id}/stockpile`}>
            Change the bases
          </Link>
        </p>
      )}
    </details>
  );
}

type Alternatives = ReturnType<typeof useAlternatives>;

/** Begins, ends and forgets the search. @param onStart null: nothing can be cut */
function CutButtons({
  alternatives: { run, stop },
  any,
  onStart,
  onDiscard,
}: {
  alternatives: Alternatives;
  any: boolean;
  onStart: (() => void) | null;
  onDiscard: () => void;
}) {
  return (
    <div className="flex items-center gap-2 py-2">
      {run.state === 'running' ? (
        <button type="button" className="btn btn-sm btn-primary w-44" onClick={stop}>
          Stop, keep the best
        </button>
      ) : (
        <button
          type="button"
          className="btn btn-sm btn-primary w-44"
          disabled={onStart === null}
          onClick={() => onStart?.()}
        >
          {any ? 'Cut again' : 'Cut'}
        </button>
      )}
      <div role="status" className="text-xs ink-2 flex-1">
        {run.state === 'running' && (
          <>
            <progress className="progress progress-primary w-full" aria-label="Searching" /> better and
            better, {SECONDS} s at most
          </>
        )}
        {run.state === 'done' && any && (run.stopped ? 'Stopped; the best so far are kept.' : 'Done.')}
      </div>
      {any && run.state !== 'running' && (
        <button type="button" className="btn btn-sm btn-ghost" onClick={onDiscard}>
          Discard
        </button>
      )}
    </div>
  );
}

/** The cuttings side by side, the current one first. */
function CuttingsTable({
  stated,
  run,
  now,
  chosen,
  onChoose,
}: {
  stated: SceneProblem | null;
  run: Alternatives['run'];
  now: Parameters<typeof AlternativeRow>[0]['arrangement'] | null;
  chosen: Alternative | null;
  onChoose: (alternative: Alternative | null) => void;
}) {
  const scene = useDisplay(({ scene: all }) => all);
  return (
    <div className="overflow-x-auto" role="region" aria-label="Alternative cuttings" tabIndex={0}>
      <table className="w-full text-xs max-sm:text-[11px] max-sm:[&_:is(th,td)]:pl-0.5">
        <caption className="sr-only">Alternative cuttings</caption>
        <thead>
          <tr className="ink-2 border-b hair text-left">
            <th className="font-normal py-1" scope="col">
              Cutting
            </th>
            <th className="font-normal text-right pl-2 whitespace-nowrap" scope="col">
              Modules
            </th>
            <th className="font-normal text-right pl-2 whitespace-nowrap" scope="col">
              To buy
            </th>
            <th className="font-normal text-right pl-2 whitespace-nowrap" scope="col">
              Heaviest
            </th>
            <th className="font-normal text-right pl-2 whitespace-nowrap" scope="col">
              Clearance
            </th>
            <th className="font-normal text-right pl-2 whitespace-nowrap" scope="col">
              Cost
            </th>
            <th
              className="font-normal text-right pl-2"
              scope="col"
              title="Above what is proven to be the least"
            >
              Above
            </th>
          </tr>
        </thead>
        <tbody>
          {now && now.modules > 0 && (
            <AlternativeRow
              word="Current"
              on={chosen === null}
              plan={listOf(scene, 'module')}
              arrangement={now}
              bound={run.bound}
              onClick={() => onChoose(null)}
            />
          )}
          {ALTERNATIVES.map((alternative) => {
            const one = run.found[alternative];
            return (
              one && (
                <FoundRow
                  key={alternative}
                  alternative={alternative}
                  on={chosen === alternative}
                  cutting={one.cutting}
                  stated={stated}
                  same={sameAs(
                    alternative,
                    run.found,
                    stated?.ok ? inDisplay(scene, one.cutting, stated.origin) : [],
                    listOf(scene, 'module'),
                  )}
                  bound={run.bound}
                  onClick={() => onChoose(alternative)}
                />
              )
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** The word of a cutting above a alternative in the table that divides the scene in the very same way; null: it is its own. */
function sameAs(
  alternative: Alternative,
  found: Partial<Record<Alternative, { cutting: Cutting }>>,
  laid: readonly Rect[],
  modules: readonly Rect[],
): string | null {
  const shape = (list: readonly Rect[]) =>
    list
      .map(({ x, y, w, d }) => `${x} ${y} ${w} ${d}`)
      .sort()
      .join();
  if (modules.length > 0 && shape(laid) === shape(modules)) return 'Current';
  const own = found[alternative];
  const before = ALTERNATIVES.slice(0, ALTERNATIVES.indexOf(alternative)).find((one) => {
    const other = found[one];
    return own && other && shape(other.cutting.modules) === shape(own.cutting.modules);
  });
  return before ? ALTERNATIVE_WORDS[before].word : null;
}

/** How good a alternative is, in words: by the Brief's weights, against the least that is proven. */
function proofOf(alternative: Alternative, cutting: Cutting, bound: number, cost: number): string {
  if (alternative === 'balanced' && cutting.proven) return 'Proven: no cutting costs less.';
  if (bound <= 0) return '';
  const above = Math.max(0, (100 * (cost - bound)) / bound).toFixed(1);
  const own =
    alternative !== 'balanced' && cutting.proven ? ' By its own weights it is proven the best.' : '';
  return `Costs at most ${above} % more than the least that is proven.${own}`;
}
