import { isPlaced } from '../../board/kinds/index.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { later } from '../../ui/later.tsx';
import { useAtRest } from '../../ui/useAtRest.ts';
import { EntityList } from './Outline.tsx';

const OPENING = 'Opening its data sheet';
const DataSheet = later(() => import('./DataSheet.tsx').then((file) => file.DataSheet), OPENING);
const GroupSheet = later(() => import('./GroupSheet.tsx').then((file) => file.GroupSheet), OPENING);
const FindingsHere = later(() => import('../../frame/Findings.tsx').then((file) => file.FindingsHere));
const AT_REST = [DataSheet.load, GroupSheet.load, FindingsHere.load];

/** The data sheet of what is picked, or the outline of the whole scene. */
export function Inspector() {
  const scene = useDisplay(({ scene }) => scene);
  const { picked, also, pick } = useView();
  useAtRest(AT_REST);
  const entity = picked ? scene[picked.kind][picked.id] : null;
  if (!picked || !entity || !isPlaced(picked.kind)) return <EntityList />;
  return (
    <>
      <button type="button" className="link link-hover text-secondary text-xs" onClick={() => pick(null)}>
        Whole display
      </button>
      {also.length > 0 ? (
        <GroupSheet picks={[picked, ...also]} />
      ) : (
        <>
          <DataSheet key={`${picked.kind} ${picked.id}`} picked={picked} />
          <FindingsHere picked={picked} />
        </>
      )}
    </>
  );
}
