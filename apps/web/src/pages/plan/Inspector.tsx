import { Suspense, lazy, useEffect } from 'react';
import { isPlaced } from '../../board/kinds/index.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { FindingsHere } from '../../frame/Findings.tsx';
import { Loading } from '../../ui/parts.tsx';
import { EntityList } from './Outline.tsx';

const loadDataSheet = () => import('./DataSheet.tsx').then((module) => ({ default: module.DataSheet }));
const loadGroupSheet = () => import('./GroupSheet.tsx').then((module) => ({ default: module.GroupSheet }));
/** Data sheets are loaded once the plan has come to rest: without the network they must be there already. */
const DataSheet = lazy(loadDataSheet);
const GroupSheet = lazy(loadGroupSheet);
const REST_MS = 1500;

/** The data sheet of what is picked, or the outline of the whole scene. */
export function Inspector() {
  const scene = useDisplay(({ scene }) => scene);
  const { picked, also, pick } = useView();
  useEffect(() => {
    const timer = setTimeout(
      // Without the network they are loaded when they are asked for.
      () => void Promise.all([loadDataSheet(), loadGroupSheet()]).catch(() => undefined),
      REST_MS,
    );
    return () => clearTimeout(timer);
  }, []);
  const entity = picked ? scene[picked.kind][picked.id] : null;
  if (!picked || !entity || !isPlaced(picked.kind)) return <EntityList />;
  return (
    <>
      <button type="button" className="link link-hover text-secondary text-xs" onClick={() => pick(null)}>
        Whole display
      </button>
      <Suspense fallback={<Loading what="Opening its data sheet …" />}>
        {also.length > 0 ? (
          <GroupSheet picks={[picked, ...also]} />
        ) : (
          <>
            <DataSheet key={`${picked.kind} ${picked.id}`} picked={picked} />
            <FindingsHere picked={picked} />
          </>
        )}
      </Suspense>
    </>
  );
}
