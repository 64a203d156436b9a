import { useHotkeys } from 'react-hotkeys-hook';
import { copyAll, isCopied, labelOfAll, removeAll, type Change } from '@quarry/core/document';
import { ON_BOARD } from '../../board/boardKeys.ts';
import { TOOLS, isPlaced } from '../../board/kinds/index.ts';
import { freshId, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { goKeys } from '../../frame/pages.ts';
import { extendTrack } from './track.ts';

/** Keys of the plan: what is picked is removed or doubled, a letter takes a tool, a track goes on. */
export function usePlanKeys(picks: readonly Picked[]): void {
  const scene = useDisplay(({ scene: now }) => now);
  const edit = useEdit();
  const { pick, pickAll, takeTool } = useView();
  const words = (list: readonly Picked[]) => labelOfAll(scene, list);
  useHotkeys(
    'delete, backspace',
    () => {
      const gone = picks.filter(({ kind }) => isPlaced(kind));
      const changes: Change[] = gone.flatMap(({ kind, id }): Change[] =>
        kind === 'table'
          ? [{ op: 'remove', kind, id, v: scene.table[id]?.v ?? 1 }]
          : removeAll(scene, [{ kind, id }]),
      );
      if (changes.length > 0 && edit.change(`removed ${words(gone)}`, changes)) pick(null);
    },
    ON_BOARD,
  );
  useHotkeys(
    'mod+d',
    () => {
      const copies = copyAll(
        scene,
        picks.filter(({ kind }) => isCopied(kind)),
        { dx: 4, dy: 4 },
        freshId,
      );
      if (copies.changes.length > 0 && edit.change(`duplicated ${words(picks)}`, copies.changes))
        pickAll(copies.picks);
    },
    { preventDefault: true },
  );
  useHotkeys(
    TOOLS.map(({ key }) => key).join(', '),
    ({ key, timeStamp }) => {
      const tool = TOOLS.find((entry) => entry.key === key.toLowerCase());
      if (tool && !goKeys.takes(timeStamp)) takeTool(tool.id);
    },
    ON_BOARD,
  );
  useHotkeys(
    'comma, period, slash',
    ({ key }) => {
      const [picked] = picks;
      const track = picked?.kind === 'track' ? scene.track[picked.id] : undefined;
      const go = ({ ',': 'left', '.': 'straight', '/': 'right' } as const)[key];
      if (track && go) edit.patch(`extended ${track.name}`, 'track', track, extendTrack(track, go));
    },
    ON_BOARD,
  );
}
