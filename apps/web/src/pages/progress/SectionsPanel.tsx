import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { countOf, formatPercent } from '@quarry/core/grid';
import { STEPS, progressOf, sectionSchedules, workDone, type SectionSchedule } from '@quarry/core/progress';
import { holdingsOf } from '@quarry/core/history';
import { STAGES, displayOf, stageWord, type Section } from '@quarry/core/document';
import { useDisplay, useEdit, useLink, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { NumberField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { localZone } from '../../ui/clock.ts';
import { daysTo, today } from '../../ui/days.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { ProgressMap } from './ProgressMap.tsx';

/** What keeps a section from going on, of all it waits for. */
const BLOCKS = ['owner', 'finding', 'parts', 'seam'] as const;

/** Each section through its stages, on the plan and in rows, and how far the whole is. */
export function SectionsPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const findings = useDerived(({ judgement }) => judgement?.findings ?? null);
  const netted = useDerived(({ materials }) => materials?.rows ?? null);
  const link = useLink();
  const { showDate } = displayOf(scene);
  const { area, done, toGo } = progressOf(scene);
  const standings = useMemo(() => sectionSchedules(scene, today(), localZone()), [scene]);
  const blocks = useMemo(
    () =>
      new Map(
        holdingsOf(scene, { findings, netted }).map(({ section, waits }) => [
          section.id,
          waits.filter(({ why }) => BLOCKS.some((one) => one === why)).map(({ sentence }) => sentence),
        ]),
      ),
    [scene, findings, netted],
  );
  const blocked = new Set([...blocks].filter(([, waits]) => waits.length > 0).map(([id]) => id));
  const weeks = showDate ? daysTo(showDate) / 7 : null;
  if (standings.length === 0)
    return (
      <div className="p-4">
        <Empty
          title="No sections yet"
          act={
            <Link className="btn btn-xs" to={`/d/${link.id}/plan`}>
              Go to the Plan
            </Link>
          }
        >
          Draw sections on the Plan (C): each is a piece of ground with an owner, and goes through its stages
          here.
        </Empty>
      </div>
    );
  const count = (list: readonly unknown[], word: string) => `${list.length} ${word}`;
  return (
    <div className="p-3 sm:p-4 grid gap-x-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_420px] items-start max-w-[1320px]">
      <section aria-labelledby="sections" className="pt-4 lg:pt-0">
        <Heading id="sections" aside={`${standings.length}`}>
          Sections
        </Heading>
        <ul>
          {standings.map((standing) => {
            const section = scene.section[standing.id];
            return (
              section && (
                <SectionRow
                  key={standing.id}
                  section={section}
                  standing={standing}
                  blocks={blocks.get(standing.id) ?? []}
                />
              )
            );
          })}
        </ul>
      </section>
      <div className="order-first lg:order-none">
        <section aria-labelledby="map">
          <Heading
            id="map"
            aside={[
              count(
                standings.filter(({ late }) => late),
                'late',
              ),
              count([...blocked], 'blocked'),
              count(
                standings.filter(({ idle }) => idle),
                'idle',
              ),
            ].join(', ')}
          >
            On the plan
          </Heading>
          <ProgressMap
            standings={standings}
            blocked={blocked}
            label={`How far each section is: ${standings
              .map(({ id, done: share }) => `${scene.section[id]?.letter ?? ''} ${formatPercent(share)}`)
              .join(', ')}`}
          />
        </section>
        <section aria-labelledby="whole" className="pt-4">
          <Heading id="whole">The whole display</Heading>
          <dl>
            <DefinitionRow label="Done, by area" note={`${countOf(area, 'stud')} in sections`}>
              {formatPercent(done)}
            </DefinitionRow>
            <DefinitionRow label="Stages to go">{toGo.toFixed(1)}</DefinitionRow>
            {weeks !== null && <DefinitionRow label="Weeks to the show">{weeks.toFixed(1)}</DefinitionRow>}
            {weeks !== null && weeks > 0 && (
              <DefinitionRow label="Stages a week from now on">{(toGo / weeks).toFixed(1)}</DefinitionRow>
            )}
          </dl>
          <Basis>
            A section’s share is the weights of the stages behind it, and of the one it is in as much as is
            typed, over all weights; the whole counts each by its area in studs. Late is more than a week
            behind an even pace from the first day to the show; blocked is without an owner, with an error,
            short of parts or at an unsigned seam; idle is two weeks without a session.
          </Basis>
        </section>
        <Stages />
      </div>
    </div>
  );
}

/** What the stages are called here, and how much of the work each is. */
function Stages() {
  const scene = useScene('display');
  const edit = useEdit();
  const may = useDenialReason();
  const display = displayOf(scene);
  const { stageNames, stageWeights } = display;
  const fixed =
    may({ op: 'patch', kind: 'display', id: display.id, v: display.v, set: { stageWeights } }) !== null;
  const all = stageWeights.reduce((sum, weight) => sum + weight, 0);
  return (
    <details className="pt-4">
      <summary className="cursor-pointer font-semibold text-[13px]">Stages and their weights</summary>
      {STAGES.map((stage, i) => (
        <div
          key={stage}
          className="grid grid-cols-[minmax(0,1fr)_5rem_3.5rem] items-center gap-2 border-b hair"
        >
          <TextField
            bare
            label={`Name of the stage ${stage}`}
            value={stageNames[i] ?? stage}
            max={24}
            required
            disabled={fixed}
            onCommit={(name) =>
              edit.patch('renamed a stage', 'display', display, {
                stageNames: stageNames.map((was, k) => (k === i ? name : was)),
              })
            }
          />
          {i < STEPS ? (
            <>
              <NumberField
                bare
                label={`Weight of the stage ${stage}`}
                value={stageWeights[i] ?? 0}
                min={0}
                max={1000}
                disabled={fixed}
                onCommit={(weight) =>
                  edit.patch('weighed the stages', 'display', display, {
                    stageWeights: stageWeights.map((was, k) => (k === i ? (weight ?? 0) : was)),
                  })
                }
              />
              <span className="fig ink-2 text-right text-xs">
                {all > 0 ? formatPercent((stageWeights[i] ?? 0) / all) : ''}
              </span>
            </>
          ) : (
            <span className="col-span-2 ink-2 text-xs text-right">the end</span>
          )}
        </div>
      ))}
      <p className="ink-2 text-xs py-1">
        A weight is the share of a section’s work that is done while it is at that stage; with 0 a stage is
        passed over.
      </p>
    </details>
  );
}

function SectionRow({
  section,
  standing,
  blocks,
}: {
  section: Section;
  standing: SectionSchedule;
  blocks: readonly string[];
}) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const show = useView((view) => view.show);
  const link = useLink();
  const at = STAGES.indexOf(section.stage);
  const forbids = may({
    op: 'patch',
    kind: 'section',
    id: section.id,
    v: section.v,
    set: { stage: section.stage },
  });
  const owner = section.owner ? scene.person[section.owner] : null;
  const word = (step: number) => (STAGES[step] ? stageWord(scene, STAGES[step]) : 'nothing');
  const go = (to: number) =>
    edit.patch(`moved section ${section.letter} to ${word(to)}`, 'section', section, {
      stage: STAGES[to],
      stageDone: 0,
    });
  return (
    <li
      className="border-b border-base-content py-2.5"
      aria-label={`Section ${section.letter}, ${section.name}`}
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span
          aria-hidden
          className="w-6 h-6 rounded-full border border-base-content flex items-center justify-center text-xs font-semibold shrink-0"
        >
          {section.letter}
        </span>
        <h3 className="font-semibold text-sm">
          <Link
            to={`/d/${link.id}/plan`}
            className="act link-hover"
            onClick={() =>
              show(
                { x: section.x + section.w / 2, y: section.y + section.d / 2 },
                { kind: 'section', id: section.id },
              )
            }
          >
            {section.name}
          </Link>
        </h3>
        <span className={owner ? 'ink-2' : 'text-warning'}>{owner ? owner.name : 'no owner'}</span>
        <span className="flex-1" />
        <span className="fig ink-2 text-xs" title="of its work, by the weights of the stages">
          {formatPercent(workDone(scene, section))} in all
        </span>
        {at < STEPS && (
          <span className="w-32 shrink-0">
            <NumberField
              bare
              label={`Percent of ${word(at)} done in section ${section.letter}`}
              unit={`% of ${word(at)}`}
              whole
              value={section.stageDone}
              min={0}
              max={100}
              disabled={forbids !== null}
              onCommit={(stageDone) =>
                edit.patch(
                  `set section ${section.letter} to ${stageDone} % of ${word(at)}`,
                  'section',
                  section,
                  { stageDone: stageDone ?? 0 },
                )
              }
            />
          </span>
        )}
        <div className="flex items-center gap-1">
          <button
            type="button"
            className="btn btn-sm btn-square btn-outline border-base-300"
            disabled={forbids !== null || at === 0}
            aria-label={`Section ${section.letter} back to ${word(at - 1)}`}
            onClick={() => go(at - 1)}
          >
            <ChevronLeft size={16} aria-hidden />
          </button>
          <span className="w-24 text-center font-semibold truncate">{word(at)}</span>
          <button
            type="button"
            className="btn btn-sm btn-square btn-outline border-base-300"
            disabled={forbids !== null || at === STEPS}
            aria-label={`Section ${section.letter} on to ${word(at + 1)}`}
            onClick={() => go(at + 1)}
          >
            <ChevronRight size={16} aria-hidden />
          </button>
        </div>
      </div>
      <ol className="flex gap-px mt-1.5" aria-label="Stages">
        {STAGES.map((stage, i) => (
          <li key={stage} className="flex-1 min-w-0" aria-current={i === at ? 'step' : undefined}>
            <div className="h-2 border border-base-content relative">
              <div
                className={`absolute inset-y-0 left-0 ${i < at || (i === at && i === STEPS) ? 'bg-base-content' : 'hatch'}`}
                style={{
                  width:
                    i < at || (i === at && i === STEPS) ? '100%' : i === at ? `${section.stageDone}%` : 0,
                }}
              />
            </div>
            <span className={`hidden sm:block truncate text-[11px] ${i === at ? 'font-semibold' : 'ink-2'}`}>
              {word(i)}
            </span>
          </li>
        ))}
      </ol>
      <p className="text-xs pt-1 flex flex-wrap gap-x-3">
        {standing.late && standing.behind !== null && (
          <span className="text-primary font-semibold">
            late: {countOf(Math.round(standing.behind), 'day')} behind
          </span>
        )}
        {blocks.length > 0 && (
          <span>
            <span className="text-primary font-semibold">blocked:</span> {blocks.join('; ')}
          </span>
        )}
        {standing.idle && (
          <span className="text-primary font-semibold">
            idle:{' '}
            {standing.rested === null
              ? 'no session yet'
              : `${countOf(standing.rested, 'day')} without a session`}
          </span>
        )}
        {forbids && <span className="ink-2">{forbids}</span>}
      </p>
    </li>
  );
}
