import { FileDown, FileUp } from 'lucide-react';
import { Suspense, lazy } from 'react';
import { Loading } from '../../ui/parts.tsx';
import { Menu } from './Toolbar.tsx';

/** Readers and writers are loaded when one of the panels is opened. */
const BringIn = lazy(() => import('./BringIn.tsx').then((module) => ({ default: module.BringIn })));
const TakeOut = lazy(() => import('./TakeOut.tsx').then((module) => ({ default: module.TakeOut })));

/** What comes into the plan and goes out of it. */
export function Exchange() {
  return (
    <>
      <Menu name="Bring in" worded={false} end label={<FileUp size={13} aria-hidden />}>
        {(close) => (
          <Suspense fallback={<Loading what="Opening …" />}>
            <BringIn onDone={close} />
          </Suspense>
        )}
      </Menu>
      <Menu name="Print and take out" worded={false} end label={<FileDown size={13} aria-hidden />}>
        {() => (
          <Suspense fallback={<Loading what="Opening …" />}>
            <TakeOut />
          </Suspense>
        )}
      </Menu>
    </>
  );
}
