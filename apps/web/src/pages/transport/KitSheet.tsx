import { Plus, Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { countOf, formatPercent, formatSum } from '@quarry/core/grid';
import { displayOf, listOf, type Scene } from '@quarry/core/document';
import { fileName } from '@quarry/core/formats';
import { valuesByOwner, type Caution, type KitItem } from '@quarry/core/kit';
import { phasesOf, type DayAnswer, type ShowPhase, type ShowTask } from '@quarry/core/transport';
import { api } from '../../data/api.ts';
import { freshId, useDenialReason, useDisplay, useEdit, useLink, useScene } from '../../data/useDisplay.tsx';
import { usePaper } from '../../data/sheets.ts';
import { DataTable, Noted } from '../../ui/DataTable.tsx';
import { Basis, Heading, Loading } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { save } from '../../ui/save.ts';
import { useLoadPlan, useShow } from '../../workers/useTransport.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { LabelsLink } from './LabelsLink.tsx';
import { showPapers, type PhaseDays } from './showPapers.ts';
import { useDay } from './useDay.ts';

/** What comes along beside the display, what it is worth, where it can hurt someone; printed in one act. */
export function KitSheet() {
  const book = useWorkerQuery((core) => core.kit());
  if (!book) return <Loading what="Working out what comes along" />;
  return (
    <div className="h-full overflow-auto px-4 pb-6 bg-base-100">
      <div className="max-w-[1100px] grid grid-cols-[minmax(0,1fr)] gap-x-10 lg:grid-cols-[minmax(0,1fr)_380px] items-start">
        <KitList kit={book.kit} />
        <div>
          <div className="pt-4">
            <Heading>Papers</Heading>
          </div>
          <p className="flex flex-wrap gap-3 pb-1">
            <PrintAll kit={book.kit} cautions={book.cautions} />
            <LabelsLink />
          </p>
          <p className="ink-2 text-xs">
            What is loaded, the tasks of the day, who comes, light and power, this kit, values, cautions.
          </p>
          <Values />
          <Cautions cautions={book.cautions} />
        </div>
      </div>
    </div>
  );
}

/** One file of all lists, as the sheets of this page have them; waits until each is worked out. */
function PrintAll({ kit, cautions }: { kit: readonly KitItem[]; cautions: readonly Caution[] }) {
  const scene = useDisplay(({ scene: now }) => now);
  const { id } = useLink();
  const paper = usePaper();
  const show = useShow();
  const power = useWorkerQuery((core) => core.power());
  const { plan: load, state } = useLoadPlan(id, show?.shipment ?? null);
  const days = useDays(scene, show?.tasks);
  const needs = useDerived(({ materials }) => materials?.needs ?? null);
  const [isBusy, setBusy] = useState(false);
  const isLoaded = show !== null && (show.shipment.carriers.length === 0 || state.is !== 'asking');
  const isReady = isLoaded && power !== null && needs !== null;
  const print = async () => {
    if (!isReady) return;
    setBusy(true);
    try {
      const sections = showPapers({
        ...{ scene, shipment: show.shipment, load, power, kit, cautions },
        days,
        values: valuesByOwner(scene, needs),
      });
      save(
        await api.lists(id, { title: 'Papers for the show', sections }, paper),
        fileName([displayOf(scene).name, 'papers for the show'], 'pdf'),
      );
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <button type="button" className="btn btn-xs" disabled={!isReady || isBusy} onClick={() => void print()}>
      <Printer size={12} aria-hidden /> {isReady ? 'Print everything for the show' : 'Working it all out …'}
    </button>
  );
}

/** The plans of all phases as if everybody came in time; null where one is not worked out yet. */
function useDays(scene: Scene, tasks: Partial<Record<ShowPhase, ShowTask[]>> | undefined): PhaseDays {
  const of = (phase: ShowPhase) => tasks?.[phase] ?? null;
  const answers: Record<ShowPhase, DayAnswer | null> = {
    leave: useDay(scene, of('leave'), 'leave'),
    setup: useDay(scene, of('setup'), 'setup'),
    takedown: useDay(scene, of('takedown'), 'takedown'),
    rebuild: useDay(scene, of('rebuild'), 'rebuild'),
  };
  return phasesOf(scene).map((phase) => {
    const answer = answers[phase];
    return { phase, tasks: of(phase) ?? [], plan: answer?.ok ? answer.plan : null };
  });
}

/** The kit by reason; what is taken into the load is told so. */
function KitList({ kit }: { kit: readonly KitItem[] }) {
  const scene = useScene('cargo');
  const edit = useEdit();
  const may = useDenialReason();
  const isFixed = may({ op: 'add', kind: 'cargo', id: 'x', data: { name: 'x', w: 1, d: 1, h: 1 } }) !== null;
  const brought = new Set(listOf(scene, 'cargo').map(({ name }) => name.toLowerCase()));
  const left = kit.filter(({ name }) => !brought.has(name.toLowerCase()));
  const bring = (items: readonly KitItem[]) =>
    edit.change(
      items.length === 1 ? `${items[0]?.name} comes along` : `${items.length} things come along`,
      items.map(({ name, count, pack: { w, d, h, kg } }) => ({
        ...{ op: 'add' as const, kind: 'cargo' as const, id: freshId('cargo') },
        // Many small ones travel in one box.
        data: {
          name: name.slice(0, 80),
          count: count > MOST_APART ? 1 : count,
          w,
          d,
          h,
          kg,
          needed: 'first',
        },
      })),
    );
  return (
    <section aria-labelledby="kit" className="pt-4">
      <Heading id="kit" aside={`${kit.length - left.length} of ${kit.length} in the load`}>
        Kit
      </Heading>
      <DataTable
        label="Kit"
        rows={kit}
        keyOf={({ key }) => key}
        columns={[
          {
            head: 'What, and why',
            wraps: true,
            cell: ({ name, why }) => <Noted word={name} note={why} />,
          },
          { head: 'How many', number: true, cell: ({ count }) => count },
          {
            head: 'In the load',
            cell: (item) =>
              brought.has(item.name.toLowerCase()) ? (
                'yes'
              ) : (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={isFixed}
                  aria-label={`Bring ${item.name}`}
                  onClick={() => void bring([item])}
                >
                  <Plus size={12} aria-hidden /> Bring
                </button>
              ),
          },
        ]}
      />
      {left.length > 1 && (
        <button type="button" className="btn btn-xs mt-2" disabled={isFixed} onClick={() => void bring(left)}>
          Bring all {left.length} of them
        </button>
      )}
      <Basis>
        Counted from the plan in the place of the show: its tables, barrier, reach, light and power, who
        comes, and what broke at earlier shows. Sizes and masses in the load are guesses; type them under
        Load, Brought along.
      </Basis>
    </section>
  );
}

/** More of one thing travel in one box. */
const MOST_APART = 12;

/** Pieces and money by owner. */
function Values() {
  const scene = useDisplay(({ scene: now }) => now);
  const needs = useDerived(({ materials }) => materials?.needs ?? null);
  const { currency } = displayOf(scene);
  if (!needs) return <Loading what="Counting the pieces" />;
  const rows = valuesByOwner(scene, needs);
  const whole = rows.reduce((sum, { money }) => sum + money, 0);
  const guessed = rows.reduce((sum, one) => sum + one.guessed, 0);
  return (
    <section aria-labelledby="values" className="pt-4">
      <Heading id="values" aside={`${formatSum(whole)} ${currency}`}>
        Values by owner
      </Heading>
      {rows.length === 0 && <p className="ink-2 text-xs">Nothing is counted yet.</p>}
      <DataTable
        label="Values by owner"
        hideHead
        rows={rows}
        keyOf={({ owner }) => owner ?? ''}
        columns={[
          {
            head: 'Owner',
            wraps: true,
            cell: ({ name, sections }) => (
              <Noted
                word={name}
                note={sections.length > 0 ? `section ${sections.join(', ')}` : 'in no section'}
              />
            ),
          },
          { head: 'Pieces', number: true, cell: ({ pieces }) => countOf(pieces, 'piece') },
          { head: 'Money', number: true, cell: ({ money }) => `${formatSum(money)} ${currency}` },
        ]}
      />
      <Basis>
        What the counted pieces would cost to buy again, without spares, by the owner of the section they are
        for. {whole > 0 ? `${formatPercent(guessed / whole)} of it is by guessed prices. ` : ''}An insurer may
        want photos and receipts too.
      </Basis>
    </section>
  );
}

function Cautions({ cautions }: { cautions: readonly Caution[] }) {
  return (
    <section aria-labelledby="cautions" className="pt-4">
      <Heading id="cautions">Cautions</Heading>
      <dl>
        {cautions.map(({ about, found, caution }) => (
          <div key={about} className="border-b hair py-1">
            <dt className="font-semibold">{about}</dt>
            <dd>{found}</dd>
            <dd className="ink-2 text-xs">{caution}</dd>
          </div>
        ))}
      </dl>
      <p className="ink-2 text-xs pt-1">Local rules, the place and qualified people decide.</p>
    </section>
  );
}
