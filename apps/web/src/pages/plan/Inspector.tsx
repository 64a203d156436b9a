import { Suspense, lazy } from 'react';
import { isPlaced } from '../../board/pick.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { FindingsHere } from '../../frame/Findings.tsx';
import { Loading } from '../../ui/parts.tsx';
import { Outline } from './Outline.tsx';

const DataSheet = lazy(() => import('./DataSheet.tsx').then((module) => ({ default: module.DataSheet })));
const GroupSheet = lazy(() => import('./GroupSheet.tsx').then((module) => ({ default: module.GroupSheet })));

/** The data sheet of what is picked, or the outline of the whole scene. */
export function Inspector() {
  const { scene } = useDisplay();
  const { picked, also, pick } = useView();
  const entity = picked ? scene[picked.kind][picked.id] : null;
  if (!picked || !entity || !isPlaced(picked.kind)) return <Outline />;
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
