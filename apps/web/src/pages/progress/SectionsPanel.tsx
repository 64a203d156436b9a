import { differenceInCalendarDays, parseISO } from 'date-fns';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { STEPS, progressOf, stepsDone } from '@quarry/core/progress';
import { STAGES, displayOf, listOf, type Section } from '@quarry/core/scene';
import { useDisplay, useEdit, useLink, useMay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Line } from '../../ui/parts.tsx';

/** Each section through its stages, and how far the whole is. */
export function SectionsPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const link = useLink();
  const sections = listOf(scene, 'section').toSorted((a, b) => (a.letter < b.letter ? -1 : 1));
  const { showDate } = displayOf(scene);
  const { area, done, toGo } = progressOf(scene);
  const weeks = showDate ? differenceInCalendarDays(parseISO(showDate), new Date()) / 7 : null;
  if (sections.length === 0)
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
  return (
    <div className="p-3 sm:p-4 grid gap-8 lg:grid-cols-[minmax(0,1fr)_280px] items-start max-w-[1200px]">
      <section aria-labelledby="sections">
        <Heading id="sections" aside={`${sections.length}`}>
          Sections
        </Heading>
        <ul>
          {sections.map((section) => (
            <SectionRow key={section.id} section={section} />
          ))}
        </ul>
      </section>
      <section aria-labelledby="whole" className="order-first lg:order-none">
        <Heading id="whole">The whole display</Heading>
        <dl>
          <Line label="Done, by area" note={`${area.toLocaleString('en')} studs in sections`}>
            {(100 * done).toFixed(0)} %
          </Line>
          <Line label="Stages to go">{toGo.toFixed(1)}</Line>
          {weeks !== null && <Line label="Weeks to the show">{weeks.toFixed(1)}</Line>}
          {weeks !== null && weeks > 0 && (
            <Line label="Stages a week from now on">{(toGo / weeks).toFixed(1)}</Line>
          )}
        </dl>
        <Basis>
          A section has {STEPS} steps from planned to done; its share is the steps behind it plus the
          percentage of the stage it is in, weighted by its area in studs. No stage is taken to be longer than
          another yet.
        </Basis>
      </section>
    </div>
  );
}

function SectionRow({ section }: { section: Section }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useMay();
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
  const go = (to: number) =>
    edit.patch(`moved section ${section.letter} to ${STAGES[to]}`, 'section', section, {
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
            className="link-hover"
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
        <span className="fig ink-2 text-xs" title="of all its stages">
          {((100 * stepsDone(section)) / STEPS).toFixed(0)} % in all
        </span>
        {at < STEPS && (
          <NumberField
            bare
            label={`Percent of ${section.stage} done in section ${section.letter}`}
            unit={`% of ${section.stage}`}
            whole
            value={section.stageDone}
            min={0}
            max={100}
            disabled={forbids !== null}
            onCommit={(stageDone) =>
              edit.patch(
                `set section ${section.letter} to ${stageDone} % of ${section.stage}`,
                'section',
                section,
                { stageDone: stageDone ?? 0 },
              )
            }
          />
        )}
        <div className="flex items-center gap-1">
          <button
            type="button"
            className="btn btn-sm btn-square btn-outline border-base-300"
            disabled={forbids !== null || at === 0}
            aria-label={`Section ${section.letter} back to ${STAGES[at - 1] ?? 'nothing'}`}
            onClick={() => go(at - 1)}
          >
            <ChevronLeft size={16} aria-hidden />
          </button>
          <span className="w-24 text-center font-semibold">{section.stage}</span>
          <button
            type="button"
            className="btn btn-sm btn-square btn-outline border-base-300"
            disabled={forbids !== null || at === STEPS}
            aria-label={`Section ${section.letter} on to ${STAGES[at + 1] ?? 'nothing'}`}
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
              {stage}
            </span>
          </li>
        ))}
      </ol>
      {forbids && <p className="ink-2 text-xs pt-1">{forbids}</p>}
    </li>
  );
}
