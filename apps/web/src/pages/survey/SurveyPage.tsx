import { Download, Plus } from 'lucide-react';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { displayOf, labelOf, listOf } from '@quarry/core/document';
import { VENUE_KINDS, withPlace, type VenueKind } from '@quarry/core/venue';
import { useSheets } from '../../data/sheets.ts';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { Empty } from '../../ui/parts.tsx';
import { PublicPanel } from './PublicPanel.tsx';
import { ReachPanel } from './ReachPanel.tsx';
import { RoomBoard } from './RoomBoard.tsx';
import { RoomPanel } from './RoomPanel.tsx';
import { SupportPanel } from './SupportPanel.tsx';
import { VenueForm } from './VenueForm.tsx';
import { AddBar } from './AddBar.tsx';
import { WayPanel } from './WayPanel.tsx';
import { firstPlace } from './defaults.ts';
import { useReach } from './useReach.ts';
import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';

export const isVenueKind = (kind: Picked['kind']): kind is VenueKind =>
  VENUE_KINDS.some((one) => one === kind);

/** Where the display stands: the room to scale, what one can reach, what the way lets in, what the public sees. */
export function SurveyPage() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const sheets = useSheets();
  const may = useDenialReason();
  const { picked, pick } = useView();
  const [chosen, setChosen] = useState<string | null>(null);
  const { sheet: panel, word, open } = useSheet('survey');
  const [wantsReach, setWantsReach] = useState(true);
  const places = listOf(scene, 'place');
  const current = displayOf(scene).place;
  const viewedId = chosen !== null && scene.place[chosen] ? chosen : current;
  // Everything below looks at the chosen place, as if the display stood there.
  const seen = useMemo(() => withPlace(scene, viewedId), [scene, viewedId]);
  const reach = useReach(viewedId, viewedId === current);
  const disabled = may({ op: 'add', kind: 'table', id: 'x', data: {} }) !== null;
  const thing = picked && isVenueKind(picked.kind) ? (scene[picked.kind][picked.id] ?? null) : null;
  const shown = thing && thing.place === viewedId ? picked : null;

  // Whoever comes here to see a thing sees the place it stands in.
  const showPlace = useEffectEvent(() => {
    if (thing) setChosen(thing.place);
  });
  const thingId = thing?.id;
  useEffect(() => showPlace(), [thingId]);
  useHotkeys('delete, backspace', () => {
    if (!shown || disabled) return;
    const entity = scene[shown.kind][shown.id];
    if (
      entity &&
      edit.remove(`removed ${labelOf(scene, shown.kind, shown.id)}`, shown.kind, shown.id, entity.v)
    )
      pick(null);
  });
  useHotkeys('escape', () => pick(null));

  const addPlace = () => {
    const id = freshId('place');
    if (edit.change('added a place', firstPlace(scene, id))) setChosen(id);
  };
  const sheet = (kind: string): string => sheets(`survey.${kind}`, viewedId ? { place: viewedId } : {});
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <div className="flex flex-wrap items-center gap-1 px-2 min-h-9 bg-base-100 border-b hair">
        <PlaceTabs {...{ viewedId, disabled, addPlace }} onChoose={setChosen} />
        <span className="w-px h-5 bg-base-300 mx-1 shrink-0" />
        <AddBar scene={seen} disabled={disabled} />
        <span className="flex-1" />
        <label className="flex items-center gap-1 text-xs whitespace-nowrap">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={wantsReach}
            onChange={(event) => setWantsReach(event.currentTarget.checked)}
          />
          Reach
        </label>
        {(['pdf', 'svg', 'dxf'] as const).map((kind) => (
          <a
            key={kind}
            className="btn btn-xs btn-ghost"
            href={sheet(kind)}
            target="_blank"
            rel="noreferrer"
            title={kind === 'pdf' ? 'Survey sheet to scale, with dimensions' : 'Room and scene outlines'}
          >
            <Download size={12} aria-hidden /> {kind.toUpperCase()}
          </a>
        ))}
      </div>
      <div className="grid grid-rows-[minmax(0,1fr)_minmax(0,1fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_340px] min-h-0">
        <RoomBoard scene={seen} reach={wantsReach ? reach : null} disabled={disabled} />
        <aside
          aria-label="Survey"
          className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 pb-3 min-h-0"
        >
          {shown ? (
            <VenueForm picked={shown} scene={seen} disabled={disabled} />
          ) : (
            <>
              <Tabs
                label="What to see"
                look="line"
                className="border-b hair sticky top-0 bg-base-100 z-10"
                each="flex-1 text-xs"
                tabs={PAGE_SHEETS.survey}
                open={panel}
                onOpen={open}
              />
              <div role="tabpanel" aria-label={word} className="pt-2">
                {places.length === 0 && panel !== 'way' && panel !== 'support' && (
                  <Empty
                    title="No room yet"
                    act={
                      <button
                        type="button"
                        className="btn btn-xs btn-primary"
                        disabled={disabled}
                        onClick={addPlace}
                      >
                        Describe the room
                      </button>
                    }
                  >
                    Give the room its size and put the tables where they stand: then you see what can be
                    reached, and whether visitors have their aisle.
                  </Empty>
                )}
                {panel === 'room' && (
                  <RoomPanel scene={seen} disabled={disabled} onGone={() => setChosen(null)} />
                )}
                {panel === 'way' && <WayPanel scene={seen} disabled={disabled} />}
                {panel === 'reach' && places.length > 0 && (
                  <ReachPanel scene={seen} reach={reach} disabled={disabled} />
                )}
                {panel === 'support' && <SupportPanel scene={seen} />}
                {panel === 'public' && places.length > 0 && <PublicPanel scene={seen} disabled={disabled} />}
              </div>
            </>
          )}
        </aside>
      </div>
    </div>
  );
}

/** The places a display may stand in, and in which it does. */
function PlaceTabs({
  viewedId,
  disabled,
  addPlace,
  onChoose,
}: {
  viewedId: string | null;
  disabled: boolean;
  addPlace: () => void;
  onChoose: (place: string) => void;
}) {
  const scene = useScene('place', 'display');
  const edit = useEdit();
  const places = listOf(scene, 'place');
  const current = displayOf(scene).place;
  return (
    <>
      <Tabs
        label="Places"
        look="bar"
        tabs={places.map(({ id, name }) => ({
          id,
          word: (
            <>
              {name}
              {id === current && <span className="text-xs opacity-80"> · stands here</span>}
            </>
          ),
        }))}
        open={viewedId}
        onOpen={onChoose}
      />
      {!disabled && (
        <button type="button" className="btn btn-xs btn-ghost" onClick={addPlace}>
          <Plus size={12} aria-hidden /> Place
        </button>
      )}
      {viewedId !== null && viewedId !== current && !disabled && (
        <button
          type="button"
          className="btn btn-xs btn-primary"
          onClick={() =>
            edit.patch(
              `moved the display to ${scene.place[viewedId]?.name ?? ''}`,
              'display',
              displayOf(scene),
              {
                place: viewedId,
              },
            )
          }
        >
          Let it stand here
        </button>
      )}
    </>
  );
}
