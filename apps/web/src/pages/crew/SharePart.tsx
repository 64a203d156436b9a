import { useMutation, useQuery } from '@tanstack/react-query';
import { keys, queryClient } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { CopyButton } from '../../ui/CopyButton.tsx';
import { Trouble } from '../../ui/forms.tsx';
import { Heading } from '../../ui/parts.tsx';

/** The page of the display for the public and the venue: its address, and the switch. */
export function SharePart() {
  const link = useLink();
  const owns = useDisplay(({ actor }) => actor.role === 'owner');
  const share = useQuery({ queryKey: keys.share(link.id), queryFn: () => crewApi.share(link.id) });
  const set = useMutation({
    mutationFn: (how: { names: boolean; fresh: boolean } | null) =>
      how ? crewApi.setShare(link.id, how) : crewApi.shareOff(link.id),
    onSettled: () => queryClient.invalidateQueries({ queryKey: keys.share(link.id) }),
  });
  const token = share.data?.token ?? null;
  const names = share.data?.names ?? false;
  const url = `${location.origin}/s/${token}`;
  return (
    <section aria-labelledby="share">
      <Heading id="share" aside={token ? 'on' : 'off'}>
        Page for the public
      </Heading>
      <p className="ink-2">
        Plan, progress and a few figures at an address nobody can guess. No advice, no stock, no prices
        {names ? '' : ', no names'}.
      </p>
      {token && (
        <p className="py-1">
          <a
            className="act link text-secondary fig text-xs break-all"
            href={url}
            target="_blank"
            rel="noreferrer"
          >
            {url}
          </a>{' '}
          <CopyButton text={url} what="The address" />
        </p>
      )}
      {owns && (
        <div className="flex flex-wrap items-center gap-2 py-1">
          {token ? (
            <>
              <label className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={names}
                  onChange={(event) => set.mutate({ names: event.currentTarget.checked, fresh: false })}
                />
                Names of builders
              </label>
              <button type="button" className="btn btn-xs" onClick={() => set.mutate({ names, fresh: true })}>
                Change the address
              </button>
              <button type="button" className="btn btn-xs" onClick={() => set.mutate(null)}>
                Switch off
              </button>
            </>
          ) : (
            <button
              type="button"
              className="btn btn-xs"
              onClick={() => set.mutate({ names: false, fresh: false })}
            >
              Switch on
            </button>
          )}
        </div>
      )}
      <Trouble error={share.error ?? set.error} />
    </section>
  );
}
