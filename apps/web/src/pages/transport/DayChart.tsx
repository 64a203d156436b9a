import { closingsOf, type DayPlan, type PhaseTimes, type ShowTask } from '@quarry/core/transport';
import { clockAfter } from './clock.ts';

/** Sizes of the drawing, in its own units. */
const LEFT = 92;
const WIDTH = 900;
const ROW = 26;
const HEAD = 20;
/** A time in which nobody may be there is as wide as so many minutes. */
const NIGHT = 30;
/** What lies this far from the end of the work and the hour that counts is drawn to scale, minutes. */
const IDLE_MARGIN = 15;
const LONG_IDLE = 180;

/** The day as bars by person: what is critical in iron, what is over pale; now, ready and the hour that counts. */
export function DayChart({
  plan,
  tasks,
  helpers,
  times,
  goal,
  now,
}: {
  plan: DayPlan;
  tasks: readonly ShowTask[];
  helpers: readonly { id: string; name: string; arrives: number }[];
  times: PhaseTimes;
  /** What the end of the time is, in words. */
  goal: string;
  now: number | null;
}) {
  const { begin, end, idle, closings, ticks, x } = scaleOf(plan, times, now);
  // On a bar there is no room for the verb.
  const titleOf = new Map(tasks.map(({ key, title }) => [key, title.replace(/^Carry /, '')]));
  const height = HEAD + helpers.length * ROW + 22;
  const foot = height - 20;
  const isLate = plan.ready > times.until;
  const marks: Mark[] = [
    {
      at: plan.ready,
      word: `ready ${clockAfter(times.from, plan.ready)}`,
      className: isLate ? 'stroke-error fill-error' : 'stroke-success fill-success',
      dash: undefined,
      isBefore: true,
    },
    { at: times.until, word: goal, className: 'stroke-primary fill-primary', dash: '4 3', isBefore: false },
    ...(now === null || now > end
      ? []
      : [
          {
            at: now,
            word: 'now',
            className: 'stroke-secondary fill-secondary',
            dash: undefined,
            isBefore: false,
          },
        ]),
  ];
  return (
    <div data-strip className="overflow-x-auto" tabIndex={0} role="group" aria-label="Chart of the day">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full min-w-[640px] my-1"
        role="img"
        aria-label={`The day by person: ready at ${clockAfter(times.from, plan.ready)}. The list below holds the same.`}
      >
        {ticks.map((at) => (
          <g key={at}>
            <line x1={x(at)} x2={x(at)} y1={HEAD} y2={foot} className="stroke-base-300" />
            <text
              x={x(at)}
              y={height - 6}
              fontSize="11"
              textAnchor="middle"
              className="fill-base-content fig"
            >
              {clockAfter(times.from, at)}
            </text>
          </g>
        ))}
        {closings.map(({ from, until }) => (
          <g key={from}>
            <rect
              x={x(from)}
              y={HEAD}
              width={x(until) - x(from)}
              height={foot - HEAD}
              className="fill-base-200"
            />
            <text
              x={(x(from) + x(until)) / 2}
              y={height - 6}
              fontSize="11"
              textAnchor="middle"
              className="fill-base-content"
            >
              night
            </text>
          </g>
        ))}
        {idle && (
          <text
            x={(x(idle.from) + x(idle.until)) / 2}
            y={(HEAD + foot) / 2}
            fontSize="14"
            textAnchor="middle"
            className="fill-base-content"
          >
            …
          </text>
        )}
        {helpers.map((helper, row) => (
          <HelperRow key={helper.id} {...{ helper, plan, titleOf, times, x, begin }} y={HEAD + row * ROW} />
        ))}
        {marks
          .filter(({ at }) => at >= begin)
          .map((mark) => (
            <MomentLine key={mark.word} mark={mark} x={x(mark.at)} foot={foot} />
          ))}
      </svg>
    </div>
  );
}

/**
 * Where the minutes of the day lie on the chart. Nights, and long hours in which nothing is left to do, are as wide as
 * half an hour.
 */
function scaleOf(plan: DayPlan, times: PhaseTimes, now: number | null) {
  const first = Math.min(...plan.rows.flatMap(({ start, state }) => (state === 'dropped' ? [] : start)));
  // A day that began long after the doors opened begins where its work does.
  const begin = first > 60 ? first - 15 : Math.min(0, first);
  const end = Math.max(plan.ready, times.until, now ?? 0, 30) + 6;
  const closings = closingsOf(times);
  // Nights, and hours in which nothing is left to do, are as wide as half an hour.
  const idle = { from: plan.ready + IDLE_MARGIN, until: times.until - IDLE_MARGIN };
  const isLong = idle.until - idle.from > LONG_IDLE && (now ?? 0) < idle.from;
  const shortened = isLong ? [...closings.filter(({ from }) => from < idle.from), idle] : closings;
  const drawn = (minute: number) =>
    shortened.reduce(
      (at, { from, until }) =>
        at - Math.max(0, Math.min(minute, until) - from) * Math.max(0, 1 - NIGHT / (until - from)),
      minute,
    );
  const [left, right] = [drawn(begin), drawn(end)];
  const x = (minute: number) => LEFT + ((drawn(minute) - left) / (right - left)) * (WIDTH - LEFT - 8);
  const step = [15, 30, 60, 120, 240].find((one) => (right - left) / one <= 10) ?? 480;
  const ticks = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step).filter(
    (at) =>
      at >= begin && !shortened.some(({ from, until }) => at > from - step / 2 && at < until + step / 2),
  );
  return { begin, end, closings, ticks, x, idle: isLong ? idle : null };
}

/** One person's tasks as bars, with the time before they come. */
function HelperRow({
  helper: { id, name, arrives },
  plan,
  titleOf,
  times,
  x,
  begin,
  y,
}: {
  helper: { id: string; name: string; arrives: number };
  plan: DayPlan;
  titleOf: ReadonlyMap<string, string>;
  times: PhaseTimes;
  x: (minute: number) => number;
  begin: number;
  y: number;
}) {
  return (
    <g>
      <text x="0" y={y + 17} fontSize="12" className="fill-base-content">
        {name.length > 13 ? `${name.slice(0, 12)}…` : name}
      </text>
      {arrives > begin && (
        <line
          x1={x(begin)}
          x2={x(arrives)}
          y1={y + 13}
          y2={y + 13}
          className="stroke-base-content"
          strokeDasharray="1 5"
          opacity="0.6"
        />
      )}
      {plan.rows
        .filter(({ people }) => people.includes(id))
        .map((row) => (
          <TaskBar
            key={row.key}
            left={x(row.start)}
            width={Math.max(1, x(row.end) - x(row.start) - 1)}
            y={y}
            isCritical={row.slack === 0 && row.state !== 'over'}
            state={row.state}
            title={titleOf.get(row.key) ?? row.key}
            when={`${clockAfter(times.from, row.start)} to ${clockAfter(times.from, row.end)}`}
          />
        ))}
    </g>
  );
}

function TaskBar({
  left,
  width,
  y,
  isCritical,
  state,
  title,
  when,
}: {
  left: number;
  width: number;
  y: number;
  isCritical: boolean;
  state: DayPlan['rows'][number]['state'];
  title: string;
  when: string;
}) {
  const letters = Math.floor((width - 6) / 6);
  return (
    <g opacity={state === 'over' ? 0.5 : 1}>
      <rect
        x={left}
        y={y + 3}
        width={width}
        height={ROW - 6}
        className={`fill-base-200 ${isCritical ? 'stroke-primary' : 'stroke-base-content'}`}
        strokeWidth={isCritical ? 1.6 : state === 'runs' ? 1.4 : 0.6}
      />
      {letters >= 3 && (
        <text
          x={left + 4}
          y={y + 17}
          fontSize="11"
          className={isCritical ? 'fill-primary' : 'fill-base-content'}
        >
          {title.length > letters ? `${title.slice(0, letters - 1)}…` : title}
        </text>
      )}
      <title>
        {title}, {when}
      </title>
    </g>
  );
}

interface Mark {
  at: number;
  word: string;
  className: string;
  dash: string | undefined;
  /** Its word stands before it. */
  isBefore: boolean;
}

/** A moment of the day: a line down the chart, with its word above. */
function MomentLine({
  mark: { word, className, dash, isBefore },
  x,
  foot,
}: {
  mark: Mark;
  x: number;
  foot: number;
}) {
  const isLeft = isBefore || x > WIDTH - 60;
  return (
    <g className={className}>
      <line x1={x} x2={x} y1={14} y2={foot} strokeWidth="1.6" strokeDasharray={dash} />
      <text
        x={x + (isLeft ? -4 : 4)}
        y="11"
        fontSize="11"
        stroke="none"
        textAnchor={isLeft ? 'end' : 'start'}
      >
        {word}
      </text>
    </g>
  );
}
