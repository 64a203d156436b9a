import { useMutation } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { Copy, Download, Images, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { MM_PER_STUD, countOf, formatPercent } from '@quarry/core/grid';
import type { DisplayLine } from '@quarry/protocol/displays';
import { api, archiveUrl, fileUrl, keys, pictureUrl, queryClient } from '../../data/api.ts';
import { Trouble } from '../../ui/forms.tsx';
import { timeToShow } from '../../ui/days.ts';
import { capital } from '../../ui/words.ts';

const MAX_NAME = 80;
const metres = (studs: number) => ((studs * MM_PER_STUD) / 1000).toFixed(2);

/** One display of the list: its plan, what it is, how far it is, what is new, and what can be done with it whole. */
export function DisplayItem({ line, onRemove }: { line: DisplayLine; onRemove: () => void }) {
  const { id, name, kind, role, seq, size, showDate, done, unread, changedAt, changedBy } = line;
  const show = timeToShow(showDate);
  return (
    <li className="grid grid-cols-[6rem_minmax(0,1fr)] sm:grid-cols-[9rem_minmax(0,1fr)_auto] gap-x-4 gap-y-1 border-b hair py-3">
      <Picture id={id} seq={seq} />
      <div className="min-w-0">
        <Link
          to={`/d/${id}/plan`}
          className="act font-semibold text-sm link link-hover block truncate"
          title={name}
        >
          {name}
        </Link>
        <p className="ink-2 text-xs">
          {[
            capital(kind),
            size && `${size.w} × ${size.d} studs, ${metres(size.w)} × ${metres(size.d)} m`,
            role === 'owner' ? 'you own it' : `you are ${role}`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        <div className="flex items-center gap-2 pt-1">
          <meter
            className="sr-only"
            aria-label={`Done of ${name}, by area`}
            min={0}
            max={100}
            value={Math.round(100 * done)}
          />
          <span aria-hidden className="flex-1 max-w-48 h-2 border border-base-content">
            <span className="block h-full bg-base-content" style={{ width: `${100 * done}%` }} />
          </span>
          <span className="text-xs">
            <span className="fig">{formatPercent(done)}</span> done
          </span>
        </div>
        <p className="text-xs pt-1">
          {show ?? 'no day set'}
          {unread > 0 && (
            <Link
              to={`/d/${id}/crew?sheet=advice`}
              className="act link link-hover text-secondary font-semibold"
            >
              {' '}
              · {countOf(unread, 'piece')} of advice to read
            </Link>
          )}
        </p>
      </div>
      <div className="col-span-2 sm:col-span-1 sm:w-48 sm:text-right">
        <p className="ink-2 text-xs">
          {changedBy ? `${changedBy} changed it` : 'Begun'} {formatDistanceToNow(changedAt)} ago
        </p>
        <Acts line={line} onRemove={onRemove} />
      </div>
    </li>
  );
}

function Picture({ id, seq }: { id: string; seq: number }) {
  const [failed, setFailed] = useState(false);
  return (
    <span className="bg-[#faf8f3] border hair h-16 sm:h-24 flex items-center justify-center">
      {failed ? (
        <span className="text-[#5b646a] text-xs">no picture now</span>
      ) : (
        <img
          src={pictureUrl(id, seq)}
          alt=""
          loading="lazy"
          decoding="async"
          className="max-h-full max-w-full object-contain"
          onError={() => setFailed(true)}
        />
      )}
    </span>
  );
}

function Acts({ line: { id, name, role }, onRemove }: { line: DisplayLine; onRemove: () => void }) {
  const navigate = useNavigate();
  const copy = useMutation({
    mutationFn: () => api.copyDisplay(id, `${name.slice(0, MAX_NAME - 7)}, copy`),
    onSuccess: (made) => {
      void queryClient.invalidateQueries({ queryKey: keys.displays });
      void navigate(`/d/${made.id}/brief`);
    },
  });
  const act = 'btn btn-xs btn-ghost btn-square max-sm:btn-md';
  return (
    <>
      <div className="flex sm:justify-end gap-1 pt-1">
        <button
          type="button"
          className={act}
          disabled={copy.isPending}
          aria-label={`Copy ${name}`}
          title="Copy: another display that begins as this one stands"
          onClick={() => copy.mutate()}
        >
          <Copy size={13} aria-hidden />
        </button>
        <a
          className={act}
          href={fileUrl(id)}
          download
          aria-label={`Save ${name} as a file`}
          title="Save as a file"
        >
          <Download size={13} aria-hidden />
        </a>
        <a
          className={act}
          href={archiveUrl(id)}
          download
          aria-label={`Save ${name} with its photos`}
          title="Save with its photos, as ZIP"
        >
          <Images size={13} aria-hidden />
        </a>
        <button
          type="button"
          className={act}
          disabled={role !== 'owner'}
          aria-label={`Delete ${name}`}
          title={role === 'owner' ? 'Delete' : 'Only its owner may delete it'}
          onClick={onRemove}
        >
          <Trash2 size={13} aria-hidden />
        </button>
      </div>
      <Trouble error={copy.error} />
    </>
  );
}
