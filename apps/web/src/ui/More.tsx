import { useState, type ReactNode } from 'react';

/** A long list as rows, so many at first and as many more each time one asks. */
export function More<T>({
  list,
  step,
  children,
}: {
  list: readonly T[];
  step: number;
  children: (one: T) => ReactNode;
}) {
  const [count, setCount] = useState(step);
  const left = list.length - count;
  return (
    <ul>
      {list.slice(0, count).map(children)}
      {left > 0 && (
        <li className="py-1">
          <button type="button" className="btn btn-sm" onClick={() => setCount(count + step)}>
            {Math.min(step, left)} more of {left}
          </button>
        </li>
      )}
    </ul>
  );
}
