import { queryOf, type PaperQuery } from './call.ts';
import { useLink } from './useDisplay.tsx';
import { paperOf, useView } from './view.ts';

/** The query that a sheet is made with: units and paper as this browser is set. */
export function usePaper(): PaperQuery {
  const metric = useView((view) => view.metric);
  const paper = useView(paperOf);
  return { units: metric, paper };
}

/** Addresses of the display's sheets and files, by file name and what else they are asked for with. */
export function useSheets(): (file: string, query?: PaperQuery) => string {
  const { id } = useLink();
  const paper = usePaper();
  return (file, query = {}) => `/api/displays/${id}/sheets/${file}?${queryOf({ ...paper, ...query })}`;
}
