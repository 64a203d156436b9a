import { useMutation, useQuery } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { Download, Images, Trash2, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { countOf } from '@quarry/core/grid';
import type { Preset } from '@quarry/core/document';
import { PRESET_LIST, api, archiveUrl, fileUrl, keys, queryClient } from '../../data/api.ts';
import type { User } from '@quarry/protocol/accounts';
import { crewApi } from '../../data/crewApi.ts';
import { rememberedDisplays, signOut } from '../../data/me.ts';
import { Dialog, Empty, Failure, Loading } from '../../ui/parts.tsx';

/** Every display one is on, and the ways to begin another. */
export function DisplaysPage({ user }: { user: User }) {
  const displays = useQuery({ queryKey: keys.displays, queryFn: rememberedDisplays, staleTime: 0 });
  const navigate = useNavigate();
  const [leaving, setLeaving] = useState<{ id: string; name: string } | null>(null);
  const leave = useMutation({
    mutationFn: signOut,
    onSettled: () => void navigate('/'),
  });
  const letters = useQuery({ queryKey: keys.letters, queryFn: crewApi.letters, staleTime: 0 });
  const unread = letters.data?.filter(({ readAt }) => readAt === null).length ?? 0;
  const remove = useMutation({
    mutationFn: api.removeDisplay,
    onSuccess: () => {
      setLeaving(null);
      return queryClient.invalidateQueries({ queryKey: keys.displays });
    },
  });
  return (
    <main className="max-w-4xl mx-auto p-4 sm:p-8">
      <div className="flex items-center gap-3 pb-4 border-b border-base-content">
        <img src="/mark.svg" alt="" width={24} height={24} />
        <h1 className="text-lg font-bold flex-1">Displays</h1>
        <Link to="/letters" className="link link-hover">
          Messages{unread > 0 && <span className="fig text-secondary"> {unread} new</span>}
        </Link>
        <Link to="/account" className="link link-hover">
          {user.name}
        </Link>
        <button type="button" className="btn btn-xs" onClick={() => leave.mutate()}>
          Sign out
        </button>
      </div>
      {displays.isPending && <Loading what="Fetching the displays" />}
      {displays.isError && (
        <Failure
          title="The displays cannot be listed"
          message={displays.error.message}
          act={
            <button type="button" className="btn btn-xs" onClick={() => void displays.refetch()}>
              Try again
            </button>
          }
        />
      )}
      {displays.data?.length === 0 && (
        <Empty title="No display yet">Begin one below, or open a display file.</Empty>
      )}
      <ul>
        {displays.data?.map(({ id, name, kind, role, changedAt }) => (
          <li key={id} className="flex items-center gap-4 border-b hair py-2.5">
            <Link to={`/d/${id}/plan`} className="font-semibold text-sm flex-1 link link-hover truncate">
              {name}
            </Link>
            <span className="ink-2 w-16">{kind}</span>
            <span className="fig text-xs w-14">{role}</span>
            <span className="ink-2 w-52 text-right hidden sm:inline">
              changed {formatDistanceToNow(changedAt)} ago
            </span>
            <a
              className="btn btn-xs btn-ghost btn-square"
              href={fileUrl(id)}
              download
              aria-label={`Save ${name} as a file`}
              title="Save as a file"
            >
              <Download size={13} aria-hidden />
            </a>
            <a
              className="btn btn-xs btn-ghost btn-square"
              href={archiveUrl(id)}
              download
              aria-label={`Save ${name} with its photos`}
              title="Save with its photos, as ZIP"
            >
              <Images size={13} aria-hidden />
            </a>
            <button
              type="button"
              className="btn btn-xs btn-ghost btn-square"
              disabled={role !== 'owner'}
              aria-label={`Delete ${name}`}
              title={role === 'owner' ? 'Delete' : 'Only its owner may delete it'}
              onClick={() => setLeaving({ id, name })}
            >
              <Trash2 size={13} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <NewDisplay />
      <Dialog
        title={`Delete ${leaving?.name ?? ''}?`}
        open={leaving !== null}
        onClose={() => setLeaving(null)}
      >
        <p className="pb-3">
          The display and its whole history go, for everybody on it. This is the one act that cannot be
          undone: save it as a file first if in doubt.
        </p>
        {remove.error && (
          <p role="alert" className="text-error pb-2">
            {remove.error.message}
          </p>
        )}
        <button
          type="button"
          className="btn btn-sm btn-error"
          disabled={remove.isPending}
          onClick={() => leaving && remove.mutate(leaving.id)}
        >
          Delete for everybody
        </button>
      </Dialog>
    </main>
  );
}

function NewDisplay() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [preset, setPreset] = useState<Preset>('vignette16');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [photos, setPhotos] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const open = ({ id }: { id: string }) => {
    void queryClient.invalidateQueries({ queryKey: keys.displays });
    void navigate(`/d/${id}/plan`);
  };
  const fail = (error: Error) => setTrouble(error.message);
  const create = useMutation({
    mutationFn: () => api.createDisplay(name.trim(), preset),
    onSuccess: open,
    onError: fail,
  });
  const load = useMutation({
    mutationFn: async (chosen: File) => {
      const { importDisplay } = await import('../../data/importDisplay.ts');
      return importDisplay(chosen, (done, of) => setPhotos(of > 0 ? `Photo ${done + 1} of ${of}` : null));
    },
    onSuccess: ({ id, without }) => {
      if (without > 0) toast.warning(`${countOf(without, 'photo')} of this display are not in the file.`);
      open({ id });
    },
    onError: fail,
    onSettled: () => setPhotos(null),
  });
  return (
    <section aria-labelledby="new" className="pt-8">
      <h2 id="new" className="font-semibold pb-2">
        Begin a display
      </h2>
      <form
        className="flex flex-wrap gap-2 items-end"
        onSubmit={(event) => {
          event.preventDefault();
          create.mutate();
        }}
      >
        <label>
          <span className="block pb-0.5">Name</span>
          <input
            className="input input-sm w-56"
            maxLength={80}
            required
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        </label>
        <label>
          <span className="block pb-0.5">Begin with</span>
          <select
            className="select select-sm w-56"
            value={preset}
            onChange={(event) =>
              setPreset(PRESET_LIST.find(({ id }) => id === event.currentTarget.value)?.id ?? preset)
            }
          >
            {PRESET_LIST.map(({ id, word }) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <button
          type="submit"
          className="btn btn-sm btn-primary"
          disabled={name.trim() === '' || create.isPending}
        >
          Begin
        </button>
        <span className="ink-2 px-2 pb-1.5">or</span>
        <button
          type="button"
          className="btn btn-sm"
          disabled={load.isPending}
          onClick={() => file.current?.click()}
        >
          <Upload size={14} aria-hidden /> {photos ?? 'Open a display file'}
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,.zip,application/json,application/zip"
          className="hidden"
          aria-label="Display file"
          onChange={(event) => {
            const [chosen] = event.currentTarget.files ?? [];
            setTrouble(null);
            if (chosen) load.mutate(chosen);
            event.currentTarget.value = '';
          }}
        />
      </form>
      {trouble && (
        <p role="alert" className="text-error pt-2">
          {trouble}
        </p>
      )}
    </section>
  );
}
