import { Printer } from 'lucide-react';
import { useSheets } from '../../data/sheets.ts';

/** Labels for everything that is carried, with codes that open it on a phone. */
export function LabelsLink() {
  const sheets = useSheets();
  return (
    <a
      className="act link inline-flex min-h-6 items-center gap-1"
      href={sheets('labels.pdf', { base: location.origin })}
      target="_blank"
      rel="noreferrer"
    >
      <Printer size={12} aria-hidden /> Print labels with codes
    </a>
  );
}
