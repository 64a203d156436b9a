import { Lock, LockOpen, Slice } from 'lucide-react';
import { useEffect, useEffectEvent, useState } from 'react';
import { toast } from 'sonner';
import {
  baseGroundOf,
  basesUnit,
  knifeAlong,
  modulesByName,
  neighboursOf,
  type HandAct,
} from '@quarry/core/cut';
import { countOf, formatSum } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, listOf, type Module } from '@quarry/core/document';
import { useDisplay, useEdit, useIsPlanner } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { basesInWords } from '../../ui/words.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** Knife, glue, moved seams and locks, each with its price before one does it. */
export function HandPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const plans = useIsPlanner();
  const { picked, pick } = useView();
  const modules = modulesByName(scene);
  const edit = useEdit();
  const now = useWorkerQuery((core) => core.arrangement());
  if (modules.length === 0)
    return (
      <>
        <Empty title="Not cut yet">
          Begin with even modules of the largest size agreed and change them here, or let Alternatives look
          for the best.
        </Empty>
        <div className="py-2">
          <Acts disabled={!plans} acts={[{ word: 'Cut evenly', act: { act: 'begin' } }]} />
        </div>
      </>
    );
  const chosen = picked?.kind === 'module' ? modules.find(({ id }) => id === picked.id) : undefined;
  return (
    <>
      <Heading aside={now ? `cost ${formatSum(now.cost.total)} ${displayOf(scene).currency}` : undefined}>
        Modules
      </Heading>
      <DataTable
        label="Modules"
        hideHead
        rows={modules}
        keyOf={({ id }) => id}
        isPicked={(module) => module === chosen}
        columns={[
          {
            head: 'Module',
            cell: (module) => (
              <button
                type="button"
                aria-pressed={module === chosen}
                className="fig font-medium cursor-pointer link-hover px-1"
                onClick={() => pick(module === chosen ? null : { kind: 'module', id: module.id })}
              >
                {module.name}
              </button>
            ),
          },
          { head: 'Size', cell: ({ w, d }) => <span className="fig">{`${w} × ${d} studs`}</span> },
          {
            head: 'Bases',
            cell: ({ bases }) => (
              <span className="fig">{bases.length > 0 ? basesInWords(bases) : 'plates'}</span>
            ),
          },
          {
            head: 'Locked',
            number: true,
            cell: (module) => (
              <button
                type="button"
                className="btn btn-xs btn-ghost btn-square"
                aria-pressed={module.locked}
                aria-label={module.locked ? `Unlock ${module.name}` : `Lock ${module.name}`}
                title={
                  module.locked ? 'Locked: stays when the rest is cut' : 'Lock: stays when the rest is cut'
                }
                disabled={!plans}
                onClick={() =>
                  edit.patch(`${module.locked ? 'unlocked' : 'locked'} ${module.name}`, 'module', module, {
                    locked: !module.locked,
                  })
                }
              >
                {module.locked ? <Lock size={12} aria-hidden /> : <LockOpen size={12} aria-hidden />}
              </button>
            ),
          },
        ]}
      />
      <KnifeLine disabled={!plans} />
      {chosen ? (
        <>
          <KnifePart key={chosen.id} module={chosen} disabled={!plans} />
          <SeamsOf module={chosen} disabled={!plans} />
        </>
      ) : (
        <p className="ink-2 py-2">
          Pick a module, here or on the board, to split it, join it or move its seams.
        </p>
      )}
      <Basis>
        A price is what the whole would cost after the act less what it costs now: bases to buy (chosen again
        for what is touched, with the stock the rest leaves), modules, studs of seam by what they cross, and
        the plates of rims that no base covers.
      </Basis>
    </>
  );
}

/** Acts in a row, each with its price; under them why some cannot be. */
function Acts({ acts, disabled }: { acts: { word: string; act: HandAct }[]; disabled: boolean }) {
  const [why, setWhy] = useState<Record<string, string>>({});
  return (
    <span className="flex-1">
      <span className="flex flex-wrap gap-1.5">
        {acts.map(({ word, act }) => (
          <ActButton
            key={word}
            word={word}
            act={act}
            disabled={disabled}
            onWhy={(error) =>
              setWhy((before) => (before[word] === error ? before : { ...before, [word]: error }))
            }
          />
        ))}
      </span>
      {[...new Set(acts.map(({ word }) => why[word]).filter(Boolean))].map((error) => (
        <span key={error} className="block ink-2 text-[11px] leading-4">
          {error}
        </span>
      ))}
    </span>
  );
}

/** One act: its price, and the button that does it. @param onWhy hears why it cannot be; empty when it can */
function ActButton({
  act,
  word,
  disabled,
  onWhy,
}: {
  act: HandAct;
  word: string;
  disabled: boolean;
  onWhy: (error: string) => void;
}) {
  const edit = useEdit();
  const { pick } = useView();
  const answer = useWorkerQuery((core) => core.byHand(act), JSON.stringify(act));
  const price = answer?.ok ? answer.after - answer.before : null;
  const tellWhy = useEffectEvent(onWhy);
  useEffect(() => {
    if (answer) tellWhy(answer.ok ? '' : answer.error);
  }, [answer]);
  return (
    <button
      type="button"
      className="btn btn-xs"
      disabled={disabled || !answer?.ok}
      title={answer && !answer.ok ? answer.error : undefined}
      onClick={() => {
        if (!answer?.ok || price === null) return;
        if (!edit.change(answer.words, answer.changes)) return;
        toast(`${answer.words}: ${signed(price)}`);
        if (act.act !== 'shift') pick(null);
      }}
    >
      {word} {price !== null && <span className="fig font-normal">{signed(price)}</span>}
    </button>
  );
}

const signed = (price: number) => `${price < 0 ? '−' : '+'}${formatSum(Math.abs(price))}`;

/** The knife drawn on the board: a straight cut over every module it runs through from side to side. */
function KnifeLine({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const { cutLine, layCut, tool, takeTool } = useView();
  const corner = footprintBounds(scene);
  // The line is this panel's own: the Plan's section cut is not shown here, and is there again afterwards.
  const [ofThePlan] = useState(cutLine);
  useEffect(() => {
    layCut(null);
    return () => {
      layCut(ofThePlan);
      takeTool('pick');
    };
  }, [layCut, takeTool, ofThePlan]);
  useEffect(() => {
    if (cutLine) takeTool('pick');
  }, [cutLine, takeTool]);
  if (!corner) return null;
  const knife =
    cutLine &&
    knifeAlong(cutLine, basesUnit(listOf(scene, 'baseType')), baseGroundOf(scene)?.origin ?? corner);
  const armed = tool === 'profile';
  return (
    <div className="py-1.5 border-b hair flex items-start gap-2">
      <button
        type="button"
        className={`btn btn-xs ${armed ? 'btn-neutral' : ''}`}
        aria-pressed={armed}
        disabled={disabled}
        onClick={() => takeTool(armed ? 'pick' : 'profile')}
      >
        <Slice size={12} aria-hidden /> {armed ? 'Draw the line on the board' : 'Knife'}
      </button>
      {knife && (
        <>
          <span className="ink-2 text-xs pt-0.5">
            {knife.upright ? 'x' : 'y'} = {knife.at}, from {knife.from} to {knife.to}
          </span>
          <Acts disabled={disabled} acts={[{ word: 'Cut here', act: { act: 'split', knife } }]} />
          <button type="button" className="btn btn-xs btn-ghost" onClick={() => layCut(null)}>
            Forget it
          </button>
        </>
      )}
    </div>
  );
}

function KnifePart({ module, disabled }: { module: Module; disabled: boolean }) {
  const [across, setAcross] = useState<'x' | 'y'>(module.w >= module.d ? 'x' : 'y');
  const [at, setAt] = useState<number | null>(null);
  const [start, length] = across === 'x' ? [module.x, module.w] : [module.y, module.d];
  const [side, along] = across === 'x' ? [module.y, module.d] : [module.x, module.w];
  const middle = Math.round(length / 32) * 16 || 8;
  const from = at ?? middle;
  return (
    <>
      <Heading>Split {module.name}</Heading>
      <div className="grid grid-cols-2 gap-x-3">
        <SelectField
          label="Line"
          value={across}
          disabled={disabled}
          options={[
            { value: 'x', word: 'north to south' },
            { value: 'y', word: 'west to east' },
          ]}
          onCommit={(value) => {
            setAcross(value);
            setAt(null);
          }}
        />
        <NumberField
          label={across === 'x' ? 'Studs from its west side' : 'Studs from its north side'}
          value={from}
          min={1}
          max={length - 1}
          whole
          disabled={disabled}
          onCommit={setAt}
        />
      </div>
      <div className="py-1">
        <Acts
          disabled={disabled}
          acts={[
            {
              word: 'Split',
              act: {
                act: 'split',
                knife: { upright: across === 'x', at: start + from, from: side, to: side + along },
              },
            },
          ]}
        />
      </div>
    </>
  );
}

function SeamsOf({ module, disabled }: { module: Module; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const pairs = neighboursOf(scene).filter(({ a, b }) => a.id === module.id || b.id === module.id);
  const unit = basesUnit(listOf(scene, 'baseType'));
  const [typed, setBy] = useState<number | null>(null);
  const by = typed ?? unit;
  if (pairs.length === 0) return null;
  return (
    <>
      <Heading>Its seams</Heading>
      <QuantityField
        measure="studs"
        step={1}
        label="Move a seam by"
        value={by}
        min={1}
        max={256}
        disabled={disabled}
        onCommit={setBy}
      />
      <ul>
        {pairs.map(({ id, a, b, line }) => {
          const other = a.id === module.id ? b : a;
          const [less, more] = line.upright ? ['West', 'East'] : ['North', 'South'];
          return (
            <li key={id} className="border-b hair py-1 flex items-start gap-1.5">
              <span className="w-24">
                with <b className="fig">{other.name}</b>{' '}
                <span className="ink-2 text-xs block">{countOf(line.length, 'stud')}</span>
              </span>
              <Acts
                disabled={disabled}
                acts={[
                  { word: less, act: { act: 'shift', seam: id, by: -by } },
                  { word: more, act: { act: 'shift', seam: id, by } },
                  { word: 'Join', act: { act: 'glue', seam: id } },
                ]}
              />
            </li>
          );
        })}
      </ul>
    </>
  );
}
