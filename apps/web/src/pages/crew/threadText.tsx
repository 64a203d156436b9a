import { wishOf, type Thread, type ThreadState } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { momentWord } from '../../ui/words.ts';

const STATE_TONE: Record<ThreadState, string> = {
  open: 'text-warning',
  accepted: 'text-success',
  declined: 'ink-2',
  resolved: 'ink-2',
};
/** The state in words, with a colour besides; of a wish what became of it. */
export function StateWord({ thread }: { thread: Thread }) {
  const scene = useScene('milestone');
  const state = thread.use === 'wish' ? wishOf(scene, thread).state : thread.state;
  return <span className={`${STATE_TONE[thread.state]} font-semibold`}>{state}</span>;
}

/** A message with its author and time. */
export function ThreadText({ by, at, text }: { by: string | null; at: string | null; text: string }) {
  const scene = useScene('person');
  return (
    <div className="py-1.5">
      <p className="text-xs">
        <span className="font-semibold">{by ? (scene.person[by]?.name ?? by) : 'Somebody'}</span>{' '}
        <span className="ink-2">{at && momentWord(at)}</span>
      </p>
      <p className="whitespace-pre-line max-w-prose break-words">{text}</p>
    </div>
  );
}
