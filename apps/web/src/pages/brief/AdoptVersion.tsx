import { useState } from 'react';
import { toast } from 'sonner';
import { adoptVersion, type Entity, type Scene } from '@quarry/core/document';
import { freshId, useEdit, useLink } from '../../data/useDisplay.tsx';
import { TextField } from '../../ui/fields.tsx';

/** Decides for a version: it becomes the base, and the base until now is kept aside with the reason. */
export function AdoptVersion({
  base,
  version,
  isFixed,
}: {
  base: Scene;
  version: Entity<'version'>;
  isFixed: boolean;
}) {
  const [reason, setReason] = useState('');
  const edit = useEdit();
  const link = useLink();
  const { id, name } = version;
  const adopt = () => {
    const note = `The base until “${name}” took its place${reason === '' ? '' : `: ${reason}`}`;
    const keep = { id: freshId('version'), name: `Before ${name}`.slice(0, 80), note: note.slice(0, 200) };
    const done = adoptVersion(base, id, keep);
    if (!done.ok) toast.error(done.sentence);
    else if (edit.change(`made ${name} the base`, done.changes)) link.showVersion(null);
  };
  return (
    <details className="pt-1">
      <summary className="cursor-pointer min-h-6">Decide for it</summary>
      <p className="ink-2 text-xs">
        It becomes the base. The base until now is kept as a version with the reason, and all others stay what
        they show.
      </p>
      <TextField label="Reason" value={reason} disabled={isFixed} onCommit={setReason} />
      <button type="button" className="btn btn-xs bg-base-100 mt-1" disabled={isFixed} onClick={adopt}>
        Make it the base
      </button>
    </details>
  );
}
