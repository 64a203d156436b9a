import { idFor, listOf, type Entity } from '@quarry/core/document';
import { showLog } from '@quarry/core/kit';
import { loadProgress, type LoadUnit } from '@quarry/core/transport';
import { useDenialReason, useDisplay, useEdit, useLink } from '../../data/useDisplay.tsx';
import { Heading } from '../../ui/parts.tsx';
import { momentWord } from '../../ui/words.ts';
import { useShow } from '../../workers/useTransport.ts';
import { Breakages } from './Breakages.tsx';
import { Diary } from './Diary.tsx';
import { useTicked } from './handling.ts';
import { Changes, Lent } from './LentPart.tsx';

/** At the show: visitors counted, what broke, what is lent, what to change; what is missing before the vehicle leaves. */
export function ShowSheet() {
  const scene = useDisplay(({ scene: now }) => now);
  const may = useDenialReason();
  const show = useShow();
  const shipment = useTicked(show?.shipment ?? null);
  const log = showLog(scene);
  const isFixed =
    may({
      op: 'add',
      kind: 'incident',
      id: 'x',
      data: { use: 'change', what: 'x', at: '2026-01-01T00:00:00.000Z' },
    }) !== null;
  return (
    <div className="h-full overflow-auto px-4 pb-6 bg-base-100">
      <div className="max-w-[1100px] grid grid-cols-[minmax(0,1fr)] gap-x-10 md:grid-cols-2 items-start">
        <div className="min-w-0">
          <Visitors hours={log.hours} total={log.visitors} earlier={log.earlier} isFixed={isFixed} />
          <Breakages entries={log.broke} units={shipment?.units ?? []} isFixed={isFixed} />
        </div>
        <div className="min-w-0">
          <Lent out={log.out} back={log.back} isFixed={isFixed} />
          <Changes entries={log.changes} isFixed={isFixed} />
          <Missing units={shipment?.units ?? []} out={log.out} />
          <Diary />
        </div>
      </div>
    </div>
  );
}

/** The beginning of an hour. */
const hourOf = (now: Date): string => {
  const at = new Date(now);
  at.setMinutes(0, 0, 0);
  return at.toISOString();
};

/** Counted by presses; several may count at once, each into a figure of their own. */
function Visitors({
  hours,
  total,
  earlier,
  isFixed,
}: {
  hours: readonly { at: string; count: number }[];
  total: number;
  earlier: number;
  isFixed: boolean;
}) {
  const link = useLink();
  const edit = useEdit();
  const person = useDisplay(({ actor }) => actor.person);
  // As it is now: presses follow quickly.
  const own = () => {
    const at = hourOf(new Date());
    const id = idFor('incident', `visitors ${person ?? ''} ${at}`);
    return { at, id, known: listOf(link.getState().scene, 'incident').find((one) => one.id === id) };
  };
  const count = (by: number) => {
    const { at, id, known } = own();
    const words = `counted ${by > 0 ? `${by} more` : `${-by} fewer`} visitors`;
    if (known) edit.patch(words, 'incident', known, { count: Math.max(0, known.count + by) });
    else if (by > 0)
      edit.add(words, 'incident', id, { use: 'visitors', what: 'visitors', at, count: by, by: person });
  };
  const most = Math.max(1, ...hours.map((hour) => hour.count));
  return (
    <section aria-labelledby="visitors" className="pt-4">
      <Heading id="visitors" aside={hours.length > 0 ? `most in an hour ${most}` : undefined}>
        Visitors
      </Heading>
      <div className="flex flex-wrap items-center gap-2">
        <output className="fig text-3xl min-w-20" aria-label="Visitors counted">
          {total.toLocaleString('en')}
        </output>
        {[1, 5, 10].map((by) => (
          <button key={by} type="button" className="btn" disabled={isFixed} onClick={() => count(by)}>
            +{by}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-ghost"
          disabled={isFixed || !own().known?.count}
          onClick={() => count(-1)}
        >
          −1
        </button>
      </div>
      {earlier > 0 && (
        <p className="ink-2 text-xs">{earlier.toLocaleString('en')} at other shows of the diary.</p>
      )}
      {hours.length > 0 && (
        <ul className="py-2" aria-label="Visitors by hour">
          {hours.map(({ at, count: number }) => (
            <li key={at} className="grid grid-cols-[9rem_minmax(0,1fr)_3rem] items-center gap-2 py-0.5">
              <span className="fig text-xs">{momentWord(at)}</span>
              <span className="bg-base-200 h-3">
                <span className="block bg-secondary h-3" style={{ width: `${(100 * number) / most}%` }} />
              </span>
              <span className="fig text-right">{number}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What is not there, and what others still have. */
function Missing({ units, out }: { units: readonly LoadUnit[]; out: readonly Entity<'incident'>[] }) {
  const { missing, arrived } = loadProgress(units);
  return (
    <section aria-labelledby="missing" className="pt-4">
      <Heading id="missing">Before the vehicle leaves</Heading>
      {arrived === 0 ? (
        <p className="ink-2 text-xs">
          Nothing is ticked as arrived yet, on Load: what is missing is told once the first thing is.
        </p>
      ) : missing.length > 0 ? (
        <p>
          <b>Not arrived:</b> {missing.map(({ name }) => name).join(', ')}
        </p>
      ) : (
        <p>All {units.length} things have arrived.</p>
      )}
      {out.length > 0 && (
        <p>
          <b>Not back:</b> {out.map(({ what, to }) => (to ? `${what} (${to})` : what)).join(', ')}
        </p>
      )}
    </section>
  );
}
