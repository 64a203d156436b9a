import { LoaderCircle } from 'lucide-react';
import type { ReactNode } from 'react';

// What is shown while something is waited for, and where it did not come.

export function Loading({ what }: { what: string }) {
  return (
    <div role="status" className="ink-2 p-4 flex items-center gap-2">
      <Spinner /> {what}
    </div>
  );
}

/** Turns while something is waited for; it stands still for people who asked for less motion. */
export function Spinner() {
  return <LoaderCircle className="size-4 shrink-0 motion-safe:animate-spin" aria-hidden />;
}

export function Failure({ title, message, act }: { title: string; message: string; act?: ReactNode }) {
  return (
    <div role="alert" className="border-l-4 border-error p-3 m-4 max-w-prose bg-base-100">
      <p className="font-semibold">{title}</p>
      <p className="py-1">{message}</p>
      {act}
    </div>
  );
}
