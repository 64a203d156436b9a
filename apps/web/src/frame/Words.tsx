import { Toaster } from 'sonner';
import { useView } from '../data/view.ts';

/** A word at the foot of the page, in the sheet's own paper and ink. */
const TOAST = {
  borderRadius: 3,
  boxShadow: 'none',
  fontFamily: 'inherit',
  background: 'var(--color-base-100)',
  color: 'var(--color-base-content)',
  border: '1px solid var(--color-base-content)',
};

/** Where they appear. */
export function Words() {
  const theme = useView((view) => view.theme);
  return (
    <Toaster
      position="bottom-center"
      theme={theme === 'night' ? 'dark' : 'light'}
      toastOptions={{ style: TOAST }}
    />
  );
}
