import { Play, Square } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { partName } from '@quarry/core/catalogue';
import { countOf, formatPlates, present } from '@quarry/core/grid';
import { displayOf } from '@quarry/core/document';
import {
  judgedThings,
  verdictOf,
  type Mend,
  type CarriedStanding,
  type WeakJoint,
} from '@quarry/core/stability';
import { useDisplay, useEdit, useIsPlanner, useLink } from '../../data/useDisplay.tsx';
import { useView, type CutLine } from '../../data/view.ts';
import { DataTable, type Tone } from '../../ui/DataTable.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Empty, Failure, Heading } from '../../ui/parts.tsx';
import { useStability } from '../../workers/useStability.ts';

const VERDICTS: Record<ReturnType<typeof verdictOf>, { word: string; tone: Tone }> = {
  stands: { word: '✓ stands', tone: null },
  falls: { word: 'comes apart', tone: 'error' },
  open: { word: 'not proven', tone: 'warning' },
};

/** Whether each module, and each deck that lifts off, stands by its counted pieces, where its joints are weakest, and what mends it. */
export function StabilityPanel({ onPoint }: { onPoint: (line: CutLine | null) => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const plans = useIsPlanner();
  const edit = useEdit();
  const { id } = useLink();
  const { picked, pick } = useView();
  const { run, start, stop, isStale } = useStability(id, scene);
  const display = displayOf(scene);
  const judged = judgedThings(scene);
  if (judged.length === 0)
    return (
      <Empty title="No modules yet">
        Cut the scene first; then each module is judged by the pieces that are counted for it.
      </Empty>
    );
  const rows = run.standings.toSorted((a, b) => needOf(b) - needOf(a));
  const chosen = rows.find((row) => picked?.kind === row.kind && picked.id === row.id) ?? rows[0] ?? null;
  return (
    <>
      <p className="border-l-4 border-warning pl-2 mb-2 text-xs">
        A caution, not advice: what stands here on paper was never touched, leant on or carried. What a stud
        holds is a guess until you have tried it. Keep what could fall out of reach of visitors; local rules
        and qualified people decide.
      </p>
      <NumberField
        label="One stud holds"
        unit="g"
        value={display.studHold}
        min={5}
        max={2000}
        disabled={!plans}
        hint="to try it: hang weights on one stud until it parts"
        onCommit={(studHold) =>
          edit.patch('changed what a stud holds', 'display', display, { studHold: studHold ?? 100 })
        }
      />
      <div className="flex items-center gap-2 py-2">
        {run.state === 'running' ? (
          <button type="button" className="btn btn-sm w-44" onClick={stop}>
            <Square size={13} aria-hidden /> Stop
          </button>
        ) : (
          <button type="button" className="btn btn-sm btn-primary w-44" onClick={start}>
            <Play size={13} aria-hidden /> {run.standings.length > 0 ? 'Judge again' : 'Judge all'}
          </button>
        )}
        <div role="status" className="text-xs ink-2 flex-1">
          {run.state === 'running' && (
            <>
              <progress
                className="progress progress-primary w-full"
                aria-label="Judged"
                value={run.done}
                max={judged.length}
              />
              {Math.floor(run.done)} of {judged.length}
            </>
          )}
          {run.state !== 'running' && isStale && 'The plan has changed since: judge again.'}
          {run.state === 'done' && !isStale && 'Judged as it is planned now; kept in this browser.'}
        </div>
      </div>
      {run.error !== null && <Failure title="The judging failed" message={run.error} />}
      {rows.length > 0 && (
        <DataTable
          label="How they stand"
          rows={rows}
          keyOf={(row) => `${row.kind} ${row.id}`}
          isPicked={(row) => row === chosen}
          columns={[
            {
              head: 'Module, loose deck',
              cell: (row) => (
                <button
                  type="button"
                  aria-pressed={row === chosen}
                  className="fig font-medium cursor-pointer px-1"
                  onClick={() => pick({ kind: row.kind, id: row.id })}
                >
                  {row.name}
                </button>
              ),
            },
            { head: 'Pieces', number: true, cell: ({ pieces }) => pieces.toLocaleString() },
            { head: 'Most used hold', number: true, cell: usedWords },
            {
              head: 'Verdict',
              cell: (row) => VERDICTS[verdictOf(row)].word,
              tone: (row) => VERDICTS[verdictOf(row)].tone,
            },
          ]}
        />
      )}
      {chosen && <Weakest of={chosen} onPoint={onPoint} />}
      {chosen && !isStale && (
        <Mends
          of={chosen}
          onApply={
            plans
              ? (words, changes) => {
                  if (edit.change(words, changes)) toast.success(`${words}: done`);
                }
              : null
          }
        />
      )}
      <Basis>
        Every piece is a rigid body; where one lies on another it may push without limit and pull with what
        its studs hold. A module stands when forces exist that balance every piece (limit analysis of rigid
        blocks, Livesley 1978). “Most used hold” is the share the most loaded joint needs with the forces that
        were found; “not proven” where neither that nor the opposite was shown in 10 s. What is borne straight
        down to the base counts as one with it; a roof or bridge that meets solid ground counts as let into it
        by a stud; friction and sideways forces are left out. Buildings and trees press by their mass and tie
        nothing. A deck that lifts off stands on its feet, which hold nothing down; of what stands on it only
        buildings press.
      </Basis>
    </>
  );
}

/** What a module needs, for the order of rows: the most first. */
const needOf = ({ used, bound, loose }: CarriedStanding): number =>
  loose > 0 ? 1e9 + loose : bound > 1 ? Math.min(bound, 1e6) : Math.min(used, 2);

const percent = (share: number): string =>
  share < 0.001 ? '0 %' : share < 0.1 ? `${(100 * share).toFixed(1)} %` : `${Math.round(100 * share)} %`;

function usedWords({ used, bound, loose }: CarriedStanding): string {
  if (loose > 0) return `${countOf(loose, 'piece')} on nothing`;
  if (used <= 1) return used === 0 ? 'none, it rests' : percent(used);
  if (!Number.isFinite(bound)) return 'no hold is enough';
  return bound > 1 ? `at least ${percent(bound)}` : '–';
}

function Weakest({ of, onPoint }: { of: CarriedStanding; onPoint: (line: CutLine | null) => void }) {
  const { id } = useLink();
  const [shown, setShown] = useState<WeakJoint | null>(null);
  if (of.weakest.length === 0)
    return (
      <>
        <Heading>{of.name}: weakest joints</Heading>
        <p className="ink-2">Nothing pulls: every piece rests on what lies under it.</p>
      </>
    );
  const point = (joint: WeakJoint | null) => {
    setShown(joint);
    onPoint(joint && { a: { x: joint.x, y: joint.y }, b: { x: joint.x + joint.w, y: joint.y + joint.d } });
  };
  return (
    <>
      <Heading aside="press one to see it on the plan">{of.name}: weakest joints</Heading>
      <DataTable
        label={`Weakest joints of ${of.name}`}
        rows={of.weakest}
        keyOf={(joint) => `${joint.x} ${joint.y} ${joint.z} ${joint.upper} ${joint.w} ${joint.share}`}
        isPicked={(joint) => joint === shown}
        columns={[
          {
            head: 'Where',
            cell: (joint) => (
              <button
                type="button"
                aria-pressed={joint === shown}
                className="link link-hover text-left"
                onClick={() => point(joint === shown ? null : joint)}
              >
                {joint.of ? joint.of.name : 'ground'} at stud {joint.x}, {joint.y}, {formatPlates(joint.z)} up
              </button>
            ),
          },
          {
            head: 'In Layers',
            cell: ({ block, x, y, z }) =>
              block !== null && (
                <Link
                  className="link"
                  to={`/d/${id}/stockpile?sheet=layers&block=${encodeURIComponent(block)}&spot=${x},${y},${z}`}
                  aria-label={`Show the piece at stud ${x}, ${y}, ${formatPlates(z)} up, in Layers`}
                >
                  show
                </Link>
              ),
          },
          { head: 'Joint', wraps: true, cell: jointWords },
          {
            head: 'Hold used',
            number: true,
            cell: ({ share }) => (Number.isFinite(share) ? percent(share) : 'falls'),
            tone: ({ share }) => (share > 1 ? 'error' : share > 0.8 ? 'warning' : null),
          },
        ]}
      />
    </>
  );
}

const jointWords = ({ upper, lower, share }: WeakJoint): string =>
  Number.isFinite(share)
    ? `${partName(upper)} on ${lower === null ? 'the ground it is let into' : partName(lower)}`
    : `${partName(upper)}: no piece ties it to the base`;

function Mends({
  of,
  onApply,
}: {
  of: CarriedStanding;
  onApply: ((words: string, changes: CarriedStanding['planMends'][number]['changes']) => void) | null;
}) {
  if (verdictOf(of) !== 'falls') return null;
  const { mends, planMends } = of;
  return (
    <>
      <Heading aside="each was tried on the whole module">What mends {of.name}</Heading>
      {mends.length + planMends.length === 0 && (
        <p className="ink-2">
          Nothing that was tried is enough: thicker, carried closer, pillars, a tie, mass. Change the plan
          there.
        </p>
      )}
      <ul className="flex flex-col gap-1 text-xs">
        {planMends.map(({ words, changes, used }) => (
          <li key={words} className="flex items-center gap-2">
            <span className="flex-1">
              {words}: <span className="fig">{afterWords(used)}</span>
            </span>
            {onApply && (
              <button type="button" className="btn btn-xs" onClick={() => onApply(words, changes)}>
                Apply
              </button>
            )}
          </li>
        ))}
        {mends.map((mend) => (
          <li key={mend.kind}>
            {mendWords(mend)}: <span className="fig">{afterWords(mend.used)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

const afterWords = (used: number): string =>
  used === 0 ? 'then it rests' : `then ${percent(used)} of the hold`;

function mendWords(mend: Mend): string {
  if (mend.kind === 'mass')
    return `${mend.grams} g more at stud ${mend.at.x}, ${mend.at.y}, over what carries it`;
  if (mend.kind === 'tie')
    return `A ${partName(mend.part)} pressed on from below at stud ${mend.spot.x}, ${mend.spot.y}, ${formatPlates(mend.z)} up`;
  const first = present(mend.spots[0], 'a pillar');
  const at = `stud ${first.x}, ${first.y}, ${formatPlates(first.from)} to ${formatPlates(first.to)}`;
  return mend.spots.length === 1
    ? `A pillar of ${first.w} × ${first.d} studs at ${at}`
    : `${mend.spots.length} pillars of ${first.w} × ${first.d} studs, the first at ${at}`;
}
