import { formatKg, formatSum } from '@quarry/core/grid';
import {
  ALTERNATIVE_WORDS,
  type Arrangement,
  type Cutting,
  type Alternative,
  type SceneProblem,
} from '@quarry/core/cut';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { MiniPlan } from './MiniPlan.tsx';

/** A alternative that was found, as a row of the table. */
export function FoundRow({
  alternative,
  on,
  cutting,
  stated,
  same,
  bound,
  onClick,
}: {
  alternative: Alternative;
  on: boolean;
  cutting: Cutting;
  stated: SceneProblem | null;
  same: string | null;
  bound: number;
  onClick: () => void;
}) {
  const origin = stated?.ok ? stated.origin : null;
  const arrangement = useWorkerQuery(
    origin ? (core) => core.alternative(cutting, origin) : null,
    `${alternative} ${cutting.modules.length} ${cutting.cost.total}`,
  );
  return (
    <AlternativeRow
      word={ALTERNATIVE_WORDS[alternative].word}
      how={ALTERNATIVE_WORDS[alternative].how}
      on={on}
      same={same}
      plan={cutting.modules}
      arrangement={arrangement}
      bound={bound}
      onClick={onClick}
    />
  );
}

/** A way of dividing, as it is or as a alternative has it. */
export function AlternativeRow({
  word,
  how,
  on,
  same = null,
  plan,
  arrangement,
  bound,
  onClick,
}: {
  word: string;
  how?: string;
  on: boolean;
  /** A cutting listed above that has the very same modules. */
  same?: string | null;
  plan: readonly { x: number; y: number; w: number; d: number }[];
  arrangement: Arrangement | null;
  bound: number;
  onClick: () => void;
}) {
  const { say } = useMeasureFormat();
  const cell = 'fig text-right align-middle whitespace-nowrap pl-1';
  const spare = arrangement?.tightest?.spare;
  const isBelow = arrangement !== null && arrangement.cost.total < bound - 0.005;
  return (
    <tr className={`border-b hair ${on ? 'bg-base-200' : ''}`}>
      <th scope="row" className="text-left font-normal py-1">
        <button
          type="button"
          aria-pressed={on}
          title={how}
          className="flex items-center gap-1.5 cursor-pointer text-left"
          onClick={onClick}
        >
          <MiniPlan modules={plan} label={`Plan of ${word}`} />
          <span className="leading-tight">
            <span className={`whitespace-nowrap ${on ? 'font-semibold' : ''}`}>{word}</span>
            {same && <span className="ink-2 block text-[11px] whitespace-nowrap">same as {same}</span>}
          </span>
        </button>
      </th>
      <td className={cell}>{arrangement?.modules ?? '…'}</td>
      <td className={cell}>{arrangement && formatSum(arrangement.cost.bases)}</td>
      <td className={cell}>{arrangement?.heaviest ? formatKg(1000 * arrangement.heaviest.bulk.kg) : ''}</td>
      <td className={`${cell} ${spare !== undefined && spare < 0 ? 'text-error font-semibold' : ''}`}>
        {spare === undefined ? '' : say(Math.round(spare), 'mm')}
      </td>
      <td className={cell}>{arrangement && formatSum(arrangement.cost.total)}</td>
      <td className={`${cell} ${isBelow ? 'text-warning' : ''}`}>
        {!arrangement || bound <= 0 ? (
          ''
        ) : isBelow ? (
          <span title="It costs less than any cutting that keeps the limits: see its findings.">
            △ breaks a limit
          </span>
        ) : (
          `${((100 * (arrangement.cost.total - bound)) / bound).toFixed(1)} %`
        )}
      </td>
    </tr>
  );
}
