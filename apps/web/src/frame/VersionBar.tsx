import { useNavigate } from 'react-router';
import { differencesOf, listOf } from '@quarry/core/document';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { useView } from '../data/view.ts';

/** Chooses which version is shown, where there are any. */
export function VersionPicker({ className }: { className: string }) {
  const link = useLink();
  const versions = useDisplay(({ base }) => base.version);
  const shown = useDisplay(({ version }) => version?.id ?? '');
  const list = listOf({ version: versions }, 'version');
  if (list.length === 0) return null;
  return (
    <select
      aria-label="Version shown"
      className={`select select-xs ${className}`}
      value={shown}
      onChange={(event) => link.showVersion(event.currentTarget.value || null)}
    >
      <option value="">Base</option>
      {list.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** While a version is shown: where changes go, how much differs, and the way back to the base. */
export function VersionBar() {
  const link = useLink();
  const version = useDisplay(({ version: shown }) => shown);
  const base = useDisplay(({ base: all }) => all);
  const { compare } = useView();
  const navigate = useNavigate();
  if (!version) return null;
  const count = differencesOf(base, version.id).length;
  return (
    <div
      role="region"
      aria-label="Version"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1 bg-base-100 border-b hair text-xs"
    >
      <strong className="max-lg:hidden">{base.version[version.id]?.name}</strong>
      <VersionPicker className="lg:hidden w-40" />
      <span>
        {count} {count === 1 ? 'difference' : 'differences'} from the base
        {version.lost.length > 0 && (
          <span className="text-warning"> △ {version.lost.length} of them fit no more</span>
        )}
      </span>
      <label className="flex items-center gap-1">
        Changes go to
        <select
          className="select select-xs w-36"
          value={version.scope}
          onChange={(event) =>
            link.showVersion(version.id, event.currentTarget.value === 'all' ? 'all' : 'version')
          }
        >
          <option value="version">this version</option>
          <option value="all">all versions</option>
        </select>
      </label>
      <span className="flex-1" />
      <button
        type="button"
        className="btn btn-xs"
        onClick={() => {
          compare({ display: link.id, with: 'version', version: null, shows: 'both' });
          void navigate(`/d/${link.id}/plan`);
        }}
      >
        Compare with the base
      </button>
      <button type="button" className="btn btn-xs" onClick={() => link.showVersion(null)}>
        Back to the base
      </button>
    </div>
  );
}
