import type { useVersionBeside } from '../data/versions.ts';
import { SelectField } from './fields.tsx';

/** Which other version is seen beside the one that is shown; nothing where there is no other. */
export function VersionBesideField({
  label,
  choice: { options, value, choose },
}: {
  label: string;
  choice: Pick<ReturnType<typeof useVersionBeside>, 'options' | 'value' | 'choose'>;
}) {
  if (options.length === 0) return null;
  return <SelectField label={label} value={value} options={options} onCommit={choose} />;
}
