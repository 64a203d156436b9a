import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { keys, queryClient } from '../../data/api.ts';
import { accountApi } from '../../data/accountApi.ts';
import { Empty, Failure, Loading } from '../../ui/parts.tsx';
import { SmallPage } from '../../ui/SmallPage.tsx';
import { momentWord } from '../../ui/words.ts';

/** The letters this instance would send, were there mail to send them with. */
export function LettersPage() {
  const letters = useQuery({ queryKey: keys.letters, queryFn: accountApi.letters, staleTime: 0 });
  const read = useMutation({
    mutationFn: accountApi.readLetter,
    onSettled: () => queryClient.invalidateQueries({ queryKey: keys.letters }),
  });
  return (
    <SmallPage title="Messages">
      <p className="border-l-2 border-warning pl-2">
        Mail is simulated: this server sends none. What it would send to you stands here.
      </p>
      {letters.isPending && <Loading what="Fetching the messages" />}
      {letters.isError && <Failure title="The messages cannot be read" message={letters.error.message} />}
      {letters.data?.length === 0 && (
        <Empty title="No messages">
          When somebody names or answers you, changes what you may do, or asks for a new password, it stands
          here; and once a day what the others did, if you have not looked.
        </Empty>
      )}
      <ul>
        {letters.data?.map(({ id, subject, body, link, at, readAt }) => (
          <li key={id} className="border-b hair py-2">
            <div className="flex items-baseline gap-3">
              <h2 className={`flex-1 break-words ${readAt === null ? 'font-semibold' : ''}`}>
                {readAt === null && (
                  <span className="text-secondary" title="not read">
                    ●<span className="sr-only"> not read: </span>{' '}
                  </span>
                )}
                {subject}
              </h2>
              <span className="ink-2 text-xs whitespace-nowrap">{momentWord(at)}</span>
            </div>
            {body && <p className="whitespace-pre-line max-w-prose ink-2 break-words">{body}</p>}
            <div className="flex items-baseline gap-3 text-xs">
              {link !== '' && (
                <Link className="link text-secondary font-semibold" to={link} onClick={() => read.mutate(id)}>
                  Go there
                </Link>
              )}
              {readAt === null && (
                <button type="button" className="link link-hover ink-2" onClick={() => read.mutate(id)}>
                  I have read it
                </button>
              )}
            </div>
          </li>
        ))}
      </ul>
    </SmallPage>
  );
}
