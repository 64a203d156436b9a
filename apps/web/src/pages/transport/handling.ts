import type { Handling } from '@quarry/core/document';
import { handlingId } from '@quarry/core/transport';
import { useDenialReason, useEdit } from '../../data/useDisplay.tsx';

/** Writes what is known of how a thing travels, whether anything was known before or not. */
export function useHandle(): {
  set: (words: string, key: string, handling: Handling | null, fields: Partial<Handling>) => void;
  isForbidden: boolean;
} {
  const edit = useEdit();
  const may = useDenialReason();
  return {
    set: (words, key, handling, fields) =>
      void (handling
        ? edit.patch(words, 'handling', handling, fields)
        : edit.add(words, 'handling', handlingId(key), { piece: key, ...fields })),
    isForbidden: may({ op: 'add', kind: 'handling', id: 'x', data: { piece: 'x' } }) !== null,
  };
}
