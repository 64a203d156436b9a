import { Link } from 'react-router';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { Dialog } from '../ui/parts.tsx';
import { later } from '../ui/later.tsx';

/** The words of all fields come with it: asked for when they are needed. */
const Choice = later(
  () => import('./ConflictChoice.tsx').then((file) => file.ConflictChoice),
  'Laying both versions side by side',
);

/** Conflict dialog: both versions field by field, one conflict after the other. */
export function ConflictDialog() {
  const link = useLink();
  const conflict = useDisplay(({ conflict }) => conflict);
  const count = useDisplay(({ conflicts }) => conflicts);
  return (
    <Dialog
      title={count > 1 ? `Somebody changed this first (1 of ${count})` : 'Somebody changed this first'}
      open={conflict !== null}
      onClose={() => link.resolveWithTheirs()}
    >
      {conflict && <Choice key={conflict.waiting.join()} conflict={conflict} />}
    </Dialog>
  );
}

/** The user lost access to the display, or the session has ended. */
export function GoneDialog() {
  const gone = useDisplay(({ gone }) => gone);
  const save = useDisplay(({ save }) => save);
  const waits = save.state === 'waiting' ? save.count : 0;
  return (
    <Dialog
      title={gone === 'session' ? 'You are signed out' : 'This display is closed to you'}
      open={gone !== null}
      onClose={() => location.reload()}
    >
      <p className="pb-2">
        {gone === 'session'
          ? 'Your session has ended here or was ended elsewhere. Sign in again to go on.'
          : 'It was deleted, or its owner took you off it.'}
        {waits > 0 && ` ${waits} of your changes are kept in this browser.`}
      </p>
      {gone === 'session' ? (
        <button type="button" className="btn btn-sm btn-primary" onClick={() => location.reload()}>
          Sign in
        </button>
      ) : (
        <Link className="btn btn-sm btn-primary" to="/">
          All displays
        </Link>
      )}
    </Dialog>
  );
}
