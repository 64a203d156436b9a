import { Check, X } from 'lucide-react';
import { Link } from 'react-router';
import { useLink } from '../data/useDisplay.tsx';
import { dismissSteps, passStep } from '../data/stepPaths.ts';
import { useFirstSteps } from './firstSteps.ts';

/** The path of a new display over each page: what is done, what to do here, what comes next. */
export function FirstStepsBar({ page }: { page: string | null }) {
  const { id } = useLink();
  const steps = useFirstSteps();
  if (!steps) return null;
  const here = steps.find((step) => step.page === page);
  const at = here ? steps.indexOf(here) : -1;
  const next = steps[at + 1];
  return (
    <nav
      aria-label="First steps"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1 bg-base-100 border-b border-base-content text-xs"
    >
      <ol className="flex items-center gap-x-1">
        {steps.map(({ page: to, word, done }, i) => (
          <li key={to} className="flex items-center gap-1">
            {i > 0 && (
              <span aria-hidden className="ink-2 px-0.5">
                →
              </span>
            )}
            <Link
              to={`/d/${id}/${to}`}
              aria-current={to === page ? 'step' : undefined}
              className={`flex items-center gap-1 min-h-6 link link-hover ${to === page ? 'font-semibold' : ''}`}
            >
              <span className="fig border border-base-content rounded-full w-4 h-4 inline-flex items-center justify-center text-[10px]">
                {done ? <Check size={10} aria-label="done" /> : i + 1}
              </span>
              {word}
            </Link>
          </li>
        ))}
      </ol>
      <span className="flex-1 min-w-40">{here?.hint}</span>
      {next && (
        <Link
          to={`/d/${id}/${next.page}`}
          className="btn btn-xs btn-primary"
          onClick={() => here && passStep(id, here.page)}
        >
          Next: {next.word}
        </Link>
      )}
      {here && !next && (
        <button type="button" className="btn btn-xs btn-primary" onClick={() => dismissSteps(id)}>
          Done
        </button>
      )}
      <button
        type="button"
        className="btn btn-xs btn-ghost btn-square"
        aria-label="Dismiss the first steps"
        title="Dismiss the first steps"
        onClick={() => dismissSteps(id)}
      >
        <X size={13} aria-hidden />
      </button>
    </nav>
  );
}
