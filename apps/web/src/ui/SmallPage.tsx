import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** A page outside of any display: its head, the way back, and what it holds. */
export function SmallPage({
  title,
  aside,
  children,
}: {
  title: string;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <main className="min-h-dvh bg-base-100">
      <div className="max-w-2xl mx-auto p-4 sm:p-8 flex flex-col gap-5">
        <div className="flex items-baseline gap-3 pb-3 border-b border-base-content">
          <h1 className="text-lg font-bold flex-1">{title}</h1>
          {aside}
          <Link className="link" to="/">
            All displays
          </Link>
        </div>
        {children}
      </div>
    </main>
  );
}
