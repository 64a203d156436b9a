import { displayOf, type Display } from '@quarry/core/document';
import { useEdit, useScene } from './useDisplay.tsx';

/** Sets fields of the display itself, with the words for the history. */
export function useSetDisplay() {
  const edit = useEdit();
  const scene = useScene('display');
  return (label: string, fields: Partial<Display>) => edit.patch(label, 'display', displayOf(scene), fields);
}
