import { FileDown, FileUp } from 'lucide-react';
import { Menu } from './Toolbar.tsx';
import { later } from '../../ui/later.tsx';

/** Readers and writers are loaded when one of the panels is opened. */
const BringIn = later(() => import('./BringIn.tsx').then((module) => module.BringIn), 'Opening');
const TakeOut = later(() => import('./TakeOut.tsx').then((module) => module.TakeOut), 'Opening');

/** What comes into the plan and goes out of it. */
export function Exchange() {
  return (
    <>
      <Menu name="Bring in" worded={false} end label={<FileUp size={13} aria-hidden />}>
        {(close) => <BringIn onDone={close} />}
      </Menu>
      <Menu name="Print and take out" worded={false} end label={<FileDown size={13} aria-hidden />}>
        {() => <TakeOut />}
      </Menu>
    </>
  );
}
