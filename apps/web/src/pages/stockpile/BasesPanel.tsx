import { Plus, Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { MM_PER_STUD, countOf, readGridSize, formatSum } from '@quarry/core/grid';
import { baseNeeds, type BaseNeed } from '@quarry/core/cut';
import { MAX_STUDS, displayOf, listOf, type BaseType } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useLink, useIsPlanner } from '../../data/useDisplay.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';

/** The bases: what is owned, what the modules need, what is short and what it costs. */
export function BasesPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const link = useLink();
  const plans = useIsPlanner();
  const needs = baseNeeds(scene);
  const { currency } = displayOf(scene);
  const modules = listOf(scene, 'module').length;
  const total = needs.reduce((sum, { cost }) => sum + cost, 0);
  const short = needs.reduce((sum, need) => sum + need.short, 0);
  return (
    <div className="p-4 grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_280px] items-start max-w-[1200px]">
      <section aria-labelledby="bases">
        <Heading id="bases" aside={`${needs.reduce((sum, { owned }) => sum + owned, 0)} owned`}>
          Bases
        </Heading>
        {modules === 0 && (
          <Empty
            title="Nothing is needed yet"
            act={
              <Link className="btn btn-xs" to={`/d/${link.id}/cut`}>
                Go to Cut
              </Link>
            }
          >
            List the bases you own here, then cut the scene: the modules will say what they need.
          </Empty>
        )}
        <ul className="flex flex-col gap-3">
          {needs.map((need) => (
            <BaseRow
              key={`${need.w} ${need.d}`}
              need={need}
              type={need.id ? (scene.baseType[need.id] ?? null) : null}
              currency={currency}
              plans={plans}
            />
          ))}
        </ul>
        {plans && <AddBase known={needs} />}
      </section>
      <section aria-labelledby="sum" className="lg:order-none order-first">
        <Heading id="sum">To buy or borrow</Heading>
        <dl>
          <DefinitionRow label="Bases short">{short}</DefinitionRow>
          <DefinitionRow
            label="At the prices typed"
            note={total === 0 && short > 0 ? 'no prices yet' : undefined}
          >
            {formatSum(total)} {currency}
          </DefinitionRow>
          <DefinitionRow label="For">{countOf(modules, 'module')}</DefinitionRow>
        </dl>
        <Basis>
          Each module’s bases are counted by size, whichever way round they lie; what is owned is taken off,
          and the rest costs the price you typed. Prices are yours: this program knows no market.
        </Basis>
      </section>
    </div>
  );
}

function BaseRow({
  need,
  type,
  currency,
  plans,
}: {
  need: BaseNeed;
  type: BaseType | null;
  currency: string;
  plans: boolean;
}) {
  const edit = useEdit();
  const set = (what: string, fields: Partial<BaseType>) =>
    type && edit.patch(`${what} of base ${need.w}×${need.d}`, 'baseType', type, fields);
  const most = Math.max(1, need.needed, need.owned);
  const share = (count: number) => `${(100 * count) / most}%`;
  return (
    <li className="border-b border-base-content pb-2" aria-label={`Base ${need.w}×${need.d}`}>
      <div className="flex items-baseline gap-3">
        <h3 className="font-semibold text-sm">
          Base{' '}
          <span className="fig">
            {need.w}×{need.d}
          </span>
        </h3>
        <span className="fig ink-2 text-xs">
          {need.w * MM_PER_STUD} × {need.d * MM_PER_STUD} mm
        </span>
        <span className="flex-1" />
        <span className={`fig font-medium ${need.short > 0 ? 'text-error' : 'text-success'}`}>
          {need.short > 0 ? `${need.short} short` : need.needed > 0 ? 'enough' : 'not needed'}
        </span>
        {plans && type && (
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square"
            aria-label={`Remove base ${need.w}×${need.d} from the list`}
            onClick={() => edit.remove(`removed base ${need.w}×${need.d}`, 'baseType', type.id, type.v)}
          >
            <Trash2 size={12} aria-hidden />
          </button>
        )}
      </div>
      <div
        className="h-2 border border-base-content my-1 relative"
        role="img"
        aria-label={`${need.needed} needed, ${need.owned} owned`}
      >
        <div
          className="absolute inset-y-0 left-0 hatch text-base-content"
          style={{ width: share(need.needed) }}
        />
        <div
          className="absolute inset-y-0 left-0 bg-base-content"
          style={{ width: share(Math.min(need.owned, need.needed)) }}
        />
      </div>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-x-6">
        <dl>
          <DefinitionRow
            label="Needed"
            note={need.modules
              .map(({ name, count }) => (count > 1 ? `${name}\u00a0(${count})` : name))
              .join(', ')}
          >
            {need.needed}
          </DefinitionRow>
        </dl>
        {type ? (
          <NumberField
            label="Owned"
            whole
            value={type.stock}
            min={0}
            max={10_000}
            disabled={!plans}
            onCommit={(stock) => set('changed the stock', { stock: stock ?? 0 })}
          />
        ) : (
          <p className="ink-2">This size is not on the list.</p>
        )}
        {type && (
          <NumberField
            label="Price"
            money
            unit={currency}
            value={type.price}
            min={0}
            max={1e6}
            disabled={!plans}
            onCommit={(price) => set('changed the price', { price: price ?? 0 })}
            hint={need.cost > 0 ? `${formatSum(need.cost)} ${currency} for ${need.short}` : undefined}
          />
        )}
        {type && (
          <NumberField
            label="At most"
            whole
            optional="no limit"
            value={type.max}
            min={0}
            max={10_000}
            disabled={!plans}
            onCommit={(max) => set('changed the most', { max })}
          />
        )}
      </div>
    </li>
  );
}

function AddBase({ known }: { known: readonly BaseNeed[] }) {
  const edit = useEdit();
  const id = useId();
  const [text, setText] = useState('');
  const [error, setError] = useState<string | null>(null);
  const add = () => {
    const read = readGridSize(text, MAX_STUDS);
    if (!read.ok) return setError(`Base: ${read.error}`);
    // A base that is measured is the nearest to what was typed: it lies in nothing.
    const size = read.size.nearest ?? read.size;
    const [w, d] = [Math.max(size.w, size.d), Math.min(size.w, size.d)];
    if (known.some((need) => need.id && Math.max(need.w, need.d) === w && Math.min(need.w, need.d) === d))
      return setError(`Base size: ${w}×${d} is listed already.`);
    if (
      !edit.add(`added base ${w}×${d}`, 'baseType', freshId('baseType'), {
        w,
        d,
        price: 0,
        stock: 0,
        max: null,
      })
    )
      return;
    setText('');
    setError(null);
  };
  return (
    <form
      className="pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <label htmlFor={id} className="pr-2">
        Another size
      </label>
      <input
        id={id}
        className="input input-xs w-32 fig"
        title="In studs, mm, cm or inches"
        placeholder="32 × 16"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        aria-describedby={`${id}-error`}
      />
      <button type="submit" className="btn btn-xs ml-1" disabled={text.trim() === ''}>
        <Plus size={12} aria-hidden /> Add
      </button>
      <p id={`${id}-error`} role="alert" className="text-error text-xs">
        {error}
      </p>
    </form>
  );
}
