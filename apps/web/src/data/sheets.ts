import { queryOf, type PaperQuery } from './call.ts';
import { useDisplay, useLink } from './useDisplay.tsx';
import { paperOf, useView } from './view.ts';

/** The query that a sheet is made with: units and paper as this browser is set. */
export function usePaper(): PaperQuery {
  const metric = useView((view) => view.metric);
  const paper = useView(paperOf);
  return { units: metric, paper };
}

/** Addresses of the display's sheets and files, in the version that is shown, by file name and what else they are asked for with. */
export function useSheets(): (file: string, query?: PaperQuery) => string {
  const { id } = useLink();
  const paper = usePaper();
  const version = useDisplay(({ version: shown }) => shown?.id);
  const all = version === undefined ? paper : { ...paper, version };
  return (file, query = {}) => `/api/displays/${id}/sheets/${file}?${queryOf({ ...all, ...query })}`;
}
