import { Suspense, lazy } from 'react';
import { isPlaced } from '../../board/kinds/index.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Loading } from '../../ui/parts.tsx';
import { useAtRest } from '../../ui/useAtRest.ts';
import { EntityList } from './Outline.tsx';

const loadDataSheet = () => import('./DataSheet.tsx').then((module) => ({ default: module.DataSheet }));
const loadGroupSheet = () => import('./GroupSheet.tsx').then((module) => ({ default: module.GroupSheet }));
const loadFindings = () =>
  import('../../frame/Findings.tsx').then((module) => ({ default: module.FindingsHere }));
const DataSheet = lazy(loadDataSheet);
const GroupSheet = lazy(loadGroupSheet);
const FindingsHere = lazy(loadFindings);
const AT_REST = [loadDataSheet, loadGroupSheet, loadFindings];

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
