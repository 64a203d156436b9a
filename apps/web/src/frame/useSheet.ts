import { useSearchParams } from 'react-router';
import { present } from '@quarry/core/grid';
import { PAGE_SHEETS, type PageWithSheets, type SheetOf } from './pages.ts';

/** The open sheet of a page: part of the address, so that it can be linked and found. */
export function useSheet<P extends PageWithSheets>(
  page: P,
): { sheet: SheetOf<P>; word: string; open: (sheet: SheetOf<P>) => void } {
  const [query, setQuery] = useSearchParams();
  const sheets: readonly { id: SheetOf<P>; word: string }[] = PAGE_SHEETS[page];
  const { id, word } = present(sheets.find((one) => one.id === query.get('sheet')) ?? sheets[0], 'a sheet');
  return { sheet: id, word, open: (sheet) => setQuery({ sheet }) };
}
