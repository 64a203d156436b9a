import { MM, outerSize } from '@quarry/core/grid';
import { PASSAGE_KINDS, displayOf, type Passage, type Scene } from '@quarry/core/document';
import {
  CARRY_STUDS,
  carriedHeight,
  largestModule,
  longestFor,
  moduleLimits,
  stopperOf,
  wayOf,
  widestOf,
} from '@quarry/core/venue';
import { freshId, useEdit } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { RemoveButton } from '../../ui/rows.tsx';
import { useDerived } from '../../workers/useDerived.ts';

const KIND_WORDS: Record<(typeof PASSAGE_KINDS)[number], string> = {
  door: 'Door',
  corner: 'Corridor corner',
  stair: 'Stair',
  lift: 'Lift',
  vehicle: 'Vehicle',
};

/** The way from the workshop to the place, step by step, and the largest module that gets through all of it. */
export function WayPanel({ scene, disabled }: { scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const ground = useDerived(({ ground }) => ground);
  const way = wayOf(scene);
  const { place, moduleMaxW, moduleMaxD } = displayOf(scene);
  // What each step is measured with: a module as wide as agreed and as tall as the highest ground.
  const carried = {
    width: outerSize(Math.min(moduleMaxW, moduleMaxD)) / MM,
    height: ground ? carriedHeight(scene, ground.relief) : 0,
  };
  return (
    <>
      <Largest scene={scene} disabled={disabled} />
      <Heading aside="clear sizes, in order">Access route</Heading>
      {way.length === 0 && (
        <p className="ink-2">
          Nothing yet: list every door, stair, lift and vehicle between the workshop and the place.
        </p>
      )}
      <ol>
        {way.map((passage, i) => (
          <Step
            key={passage.id}
            passage={passage}
            carried={carried}
            before={way[i - 1] ?? null}
            disabled={disabled}
          />
        ))}
      </ol>
      <select
        aria-label="Add a step"
        className="select select-xs w-44 mt-2 bg-base-content/5"
        value=""
        disabled={disabled}
        onChange={(event) => {
          const kind = PASSAGE_KINDS.find((one) => one === event.currentTarget.value);
          if (!kind) return;
          edit.add(`added a ${KIND_WORDS[kind].toLowerCase()} to the way`, 'passage', freshId('passage'), {
            name: `new ${KIND_WORDS[kind].toLowerCase()}`,
            kind,
            width: 800,
            height: 2000,
            order: (way.at(-1)?.order ?? 0) + 10,
            place,
            ...(kind === 'corner' ? { width2: 800 } : {}),
            ...(kind === 'stair' ? { pitch: 35, width2: 800 } : {}),
            ...(kind === 'lift' ? { insideW: 1100, insideD: 1400, insideH: 2100 } : {}),
            ...(kind === 'vehicle'
              ? { width: 1100, height: 1200, insideW: 1300, insideD: 2400, insideH: 1250 }
              : {}),
          });
        }}
      >
        <option value="">Add a step …</option>
        {PASSAGE_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {KIND_WORDS[kind]}
          </option>
        ))}
      </select>
      <Basis>
        A module is a rigid box, upright and level, either way round. A door counts its width. Round a corner
        between corridors a and b a box w wide may be as long as the least of (a·sinθ + b·cosθ − w) ÷
        (sinθ·cosθ) over the quarter turn, or is pushed round without turning. On a stair it is level under
        the headroom: length × tan(pitch) + height ≤ headroom. Into a lift or vehicle it goes straight in; of
        vehicles one after another it travels in one.
      </Basis>
    </>
  );
}

/** The limit that follows, the alternatives to it, and taking it as the module limit. */
function Largest({ scene, disabled }: { scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const { say, tell } = useMeasureFormat();
  const ground = useDerived(({ ground }) => ground);
  const display = displayOf(scene);
  const way = wayOf(scene);
  if (!ground || way.length === 0) return null;
  const height = carriedHeight(scene, ground.relief);
  const best = largestModule(way, height, CARRY_STUDS);
  const limits = moduleLimits(way, height, CARRY_STUDS);
  const mm = (studs: number) => say(outerSize(studs) / MM, 'mm');
  const [long, short] = [
    Math.max(display.moduleMaxW, display.moduleMaxD),
    Math.min(display.moduleMaxW, display.moduleMaxD),
  ];
  const box = { short: outerSize(short) / MM, long: outerSize(long) / MM, height };
  const stopped = stopperOf(way, box);
  const set = (l: number, s: number, reason: string) =>
    edit.patch('made the access route the module limit', 'display', display, {
      moduleMaxW: l,
      moduleMaxD: s,
      moduleReason: reason,
    });
  return (
    <section aria-labelledby="largest">
      <Heading id="largest">Largest module that gets through</Heading>
      {best ? (
        <>
          <p className="text-base">
            <span className="fig font-medium">
              {best.long} × {best.short} studs
            </span>{' '}
            <span className="fig ink-2 text-xs">
              {mm(best.long)} × {mm(best.short)}
            </span>
          </p>
          <p className="py-1">
            {best.tightest ? (
              <>
                The tightest is the <b>{best.tightest.name}</b>:{' '}
              </>
            ) : null}
            {tell(best.reason)}
          </p>
        </>
      ) : (
        <p className="text-error">Not even 8 × 8 studs gets through.</p>
      )}
      <p className={`text-xs py-1 ${stopped ? 'text-warning' : 'ink-2'}`}>
        {stopped
          ? `△ The limit agreed, ${long} × ${short}, does not pass the ${stopped.name}.`
          : `The limit agreed is ${long} × ${short} studs: it passes.`}
      </p>
      {best && (best.long !== long || best.short !== short) && (
        <button
          type="button"
          className="btn btn-xs btn-primary"
          disabled={disabled}
          onClick={() => set(best.long, best.short, best.reason)}
        >
          Make it the module limit
        </button>
      )}
      <details className="pt-1">
        <summary className="cursor-pointer text-xs ink-2">Other shapes that get through</summary>
        <DataTable
          label="Module sizes that get through"
          rows={limits}
          keyOf={({ short }) => String(short)}
          columns={[
            { head: 'At this width', cell: ({ short }) => `${short} studs` },
            { head: 'Longest', number: true, cell: ({ long }) => `${long} studs` },
            { head: 'Stopped by', cell: ({ stops }) => stops?.name ?? 'carrying: 192 studs' },
          ]}
        />
      </details>
      <p className="ink-2 text-xs pt-1">
        Carried {say(Math.round(height), 'mm')} tall: the tallest stud with what is fixed to it; loose
        buildings, parts that lift off and trees are taken off first. Two people lift what is wide or heavy;
        local rules and your own back decide.
      </p>
    </section>
  );
}

function Step({
  passage,
  carried,
  before,
  disabled,
}: {
  passage: Passage;
  carried: { width: number; height: number };
  before: Passage | null;
  disabled: boolean;
}) {
  const edit = useEdit();
  const { say } = useMeasureFormat();
  const set = (fields: Partial<Passage>) =>
    edit.patch(`changed the ${passage.name}`, 'passage', passage, fields);
  const size = { measure: 'mm', min: 1, max: 40_000, disabled } as const;
  const { kind } = passage;
  const inside = kind === 'lift' || kind === 'vehicle';
  const long = longestFor(passage, carried.width, carried.height);
  return (
    <li className="border-l-2 hair pl-2 mb-2" aria-label={passage.name}>
      <div className="flex items-center gap-1">
        <div className="flex-1 font-semibold">
          <TextField
            bare
            label="Passage"
            required
            value={passage.name}
            disabled={disabled}
            onCommit={(name) => set({ name })}
          />
        </div>
        <div className="w-32">
          <SelectField
            bare
            label={`Kind of ${passage.name}`}
            value={kind}
            disabled={disabled}
            options={PASSAGE_KINDS.map((value) => ({ value, word: KIND_WORDS[value] }))}
            onCommit={(next) => set({ kind: next })}
          />
        </div>
        <button
          type="button"
          className="btn btn-xs btn-ghost btn-square"
          disabled={disabled || !before}
          aria-label={`${passage.name} earlier`}
          title="Earlier"
          onClick={() =>
            before &&
            edit.change(`moved ${passage.name} on the way`, [
              { op: 'patch', kind: 'passage', id: passage.id, v: passage.v, set: { order: before.order } },
              {
                op: 'patch',
                kind: 'passage',
                id: before.id,
                v: before.v,
                set: { order: before.order === passage.order ? passage.order + 1 : passage.order },
              },
            ])
          }
        >
          ↑
        </button>
        <RemoveButton
          what={passage.name}
          disabled={disabled}
          onClick={() => edit.remove(`removed ${passage.name}`, 'passage', passage.id, passage.v)}
        />
      </div>
      <QuantityField
        label={inside ? 'Opening, width' : kind === 'corner' ? 'Width before' : 'Clear width'}
        value={passage.width}
        {...size}
        onCommit={(width) => set({ width })}
      />
      {(kind === 'corner' || kind === 'stair') && (
        <QuantityField
          label={kind === 'corner' ? 'Width after' : 'Width after its turn'}
          value={passage.width2 ?? passage.width}
          {...size}
          onCommit={(width2) => set({ width2 })}
        />
      )}
      <QuantityField
        label={kind === 'stair' ? 'Headroom over the steps' : inside ? 'Opening, height' : 'Clear height'}
        value={passage.height}
        {...size}
        onCommit={(height) => set({ height })}
      />
      {kind === 'stair' && (
        <NumberField
          label="Pitch"
          unit="°"
          value={passage.pitch}
          min={0}
          max={60}
          disabled={disabled}
          onCommit={(pitch) => set({ pitch: pitch ?? 0 })}
        />
      )}
      {inside &&
        (['insideW', 'insideD', 'insideH'] as const).map((field) => (
          <QuantityField
            key={field}
            label={{ insideW: 'Inside, width', insideD: 'Inside, depth', insideH: 'Inside, height' }[field]}
            value={passage[field] ?? (field === 'insideH' ? passage.height : passage.width)}
            {...size}
            onCommit={(value) => set({ [field]: value })}
          />
        ))}
      <p className="ink-2 text-xs py-1">
        Up to {say(widestOf(passage), 'mm')} wide and{' '}
        {say(Math.min(passage.height, passage.insideH ?? Infinity), 'mm')} tall;{' '}
        {long === Infinity
          ? 'any length.'
          : long > 0
            ? `a module ${say(carried.width, 'mm')} wide may be ${say(Math.floor(long), 'mm')} long.`
            : `none ${say(carried.width, 'mm')} wide passes.`}
      </p>
    </li>
  );
}
