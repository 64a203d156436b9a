import { useMutation } from '@tanstack/react-query';
import { Camera } from 'lucide-react';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import {
  chosenSpotOf,
  listOf,
  photoSpotsOf,
  sectionsOf,
  type Change,
  type Photo,
  type PhotoSpot,
} from '@quarry/core/document';
import { crewApi, photoUrl } from '../../data/crewApi.ts';
import { freshId, useDisplay, useEdit, useLink, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { CheckField, NumberField, OptionalQuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Trouble } from '../../ui/forms.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { sectionOptions } from '../../ui/picks.ts';
import { RemoveButton } from '../../ui/rows.tsx';
import { momentWord } from '../../ui/words.ts';
import { ProgressMap } from './ProgressMap.tsx';

/** The largest file the server takes in. */
const MAX_BYTES = 15_000_000;

/** Photos from the same spots through time, before and after over each other. */
export function PhotosPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const spots = photoSpotsOf(scene);
  const [picked, setPicked] = useState<string | null>(null);
  const spot = spots.find(({ photos }) => photos[0].id === picked) ?? spots[0];
  return (
    <div className="p-3 sm:p-4 grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_360px] items-start max-w-[1240px]">
      <div className="min-w-0">
        {spot ? (
          <SpotView key={spot.photos[0].id} spot={spot} />
        ) : (
          <Empty title="No photo yet">
            Take one at the right and say where you stood and where you looked. The next one from there lies
            over it, and a slider shows what changed.
          </Empty>
        )}
      </div>
      <div>
        <TakePhoto spot={spot} spots={spots} />
        {spots.length > 0 && (
          <>
            <Heading aside={`${spots.length}`}>Spots</Heading>
            <ul>
              {spots.map(({ photos }) => (
                <li key={photos[0].id}>
                  <button
                    type="button"
                    aria-pressed={photos[0].id === spot?.photos[0].id}
                    className={`w-full flex items-center gap-2 text-left py-1 px-1 border-b hair cursor-pointer ${photos[0].id === spot?.photos[0].id ? 'bg-base-200' : ''}`}
                    onClick={() => setPicked(photos[0].id)}
                  >
                    <Thumb photo={newestOf(photos)} />
                    <span className="min-w-0">
                      <SpotName photo={photos[0]} />
                      <span className="block ink-2 text-xs">
                        {photos.length === 1 ? 'one photo' : `${photos.length} photos`}, the last{' '}
                        {momentWord(newestOf(photos).taken)}
                      </span>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            <Basis>
              Photos within 8 studs of a spot’s first one that look within 25° of its direction belong to it
              (limits of ours); those without a place belong together by their section.
            </Basis>
          </>
        )}
      </div>
    </div>
  );
}

const newestOf = (photos: PhotoSpot['photos']): Photo => photos.at(-1) ?? photos[0];

function SpotName({ photo }: { photo: Photo }) {
  const scene = useScene('section');
  const section = scene.section[photo.section ?? ''];
  const where = photo.x === null || photo.y === null ? '' : ` at ${photo.x}, ${photo.y}`;
  return (
    <span>
      {section ? `Section ${section.letter}` : 'The display'}
      {where}
      {photo.bearing !== null && `, looking ${photo.bearing}°`}
    </span>
  );
}

function Thumb({ photo }: { photo: Photo }) {
  const link = useLink();
  return (
    <img
      src={photoUrl(link.id, photo.file, true)}
      alt=""
      loading="lazy"
      className="w-16 h-12 object-cover border hair shrink-0"
    />
  );
}

/** Two photos of a spot over each other, and all of them in a strip. */
function SpotView({ spot: { photos } }: { spot: PhotoSpot }) {
  const scene = useScene('person');
  const link = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const person = useDisplay(({ actor }) => actor.person);
  // Until others are chosen, the first and the newest, as more are taken.
  const [before, setBefore] = useState<string | null>(null);
  const [after, setAfter] = useState<string | null>(null);
  const [share, setShare] = useState(50);
  const slider = useId();
  const one = photos.find(({ id }) => id === before) ?? photos[0];
  const other = photos.find(({ id }) => id === after) ?? newestOf(photos);
  const words = (photo: Photo) =>
    `${momentWord(photo.taken)}${photo.by ? `, ${scene.person[photo.by]?.name ?? ''}` : ''}${photo.note ? `: ${photo.note}` : ''}`;
  const forbids = may({ op: 'remove', kind: 'photo', id: other.id, v: other.v });
  return (
    <figure aria-label="Before and after">
      <div
        className="relative border hair bg-base-200 overflow-hidden"
        style={{ aspectRatio: `${other.width} / ${other.height}`, maxHeight: '52vh' }}
      >
        <img
          src={photoUrl(link.id, other.file)}
          alt={`After: ${words(other)}`}
          className="absolute inset-0 w-full h-full object-cover"
        />
        {one.id !== other.id && (
          <>
            <img
              src={photoUrl(link.id, one.file)}
              alt={`Before: ${words(one)}`}
              className="absolute inset-0 w-full h-full object-cover"
              style={{ clipPath: `inset(0 ${100 - share}% 0 0)` }}
            />
            <div aria-hidden className="absolute inset-y-0 w-0.5 bg-base-100" style={{ left: `${share}%` }} />
          </>
        )}
      </div>
      {one.id !== other.id && (
        <label htmlFor={slider} className="flex items-center gap-3 pt-2">
          <span className="ink-2 text-xs">Before</span>
          <input
            id={slider}
            type="range"
            className="range range-xs flex-1"
            aria-label="How much of the photo before is shown"
            aria-valuetext={`${share} %`}
            value={share}
            onChange={(event) => setShare(event.currentTarget.valueAsNumber)}
          />
          <span className="ink-2 text-xs">After</span>
        </label>
      )}
      <figcaption className="flex items-start justify-between gap-3 pt-1">
        <span className="min-w-0 break-words">
          {one.id !== other.id && <span className="block">Before: {words(one)}</span>}
          <span className="block">
            {one.id === other.id ? 'Taken' : 'After'}: {words(other)}
          </span>
        </span>
        {photos[0].x !== null && photos[0].y !== null && (
          <Link
            className="link inline-flex min-h-6 items-center text-xs"
            to={`/d/${link.id}/sight?sheet=walk&at=${encodeURIComponent(`photo ${photos[0].id}`)}`}
          >
            The plan from here
          </Link>
        )}
        {(person === other.by || other.published) && (
          <CheckField
            label="On the public page"
            value={other.published}
            disabled={may(publishes(other, !other.published)) !== null}
            onCommit={(published) =>
              edit.patch(
                published ? 'published a photo' : 'took a photo off the public page',
                'photo',
                other,
                {
                  published,
                },
              )
            }
          />
        )}
        <RemoveButton
          what={`the photo of ${momentWord(other.taken)}`}
          disabled={forbids !== null}
          onClick={() => edit.remove('removed a photo', 'photo', other.id, other.v)}
        />
      </figcaption>
      {photos.length > 1 && (
        <ol className="flex gap-2 overflow-x-auto pt-3" aria-label="Strip through time">
          {photos.map((photo) => (
            <li key={photo.id} className="shrink-0 w-32">
              <img
                src={photoUrl(link.id, photo.file, true)}
                alt=""
                className="w-32 h-24 object-cover border hair"
              />
              <span className="block fig text-[11px]">{momentWord(photo.taken)}</span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className="btn btn-xs flex-1"
                  aria-pressed={photo.id === one.id}
                  onClick={() => setBefore(photo.id)}
                >
                  Before
                </button>
                <button
                  type="button"
                  className="btn btn-xs flex-1"
                  aria-pressed={photo.id === other.id}
                  onClick={() => setAfter(photo.id)}
                >
                  After
                </button>
              </span>
            </li>
          ))}
        </ol>
      )}
    </figure>
  );
}

const publishes = ({ id, v }: Photo, published: boolean): Change => ({
  ...{ op: 'patch', kind: 'photo', id, v },
  set: { published },
});

interface Aim {
  section: string;
  x: number | null;
  y: number | null;
  bearing: number | null;
}

function TakePhoto({ spot, spots }: { spot: PhotoSpot | undefined; spots: readonly PhotoSpot[] }) {
  const scene = useScene('section', 'photoSpot');
  const person = useDisplay(({ actor }) => actor.person);
  const link = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const [aim, setAim] = useState<Aim>({
    ...{ section: sectionsOf(scene, person)[0]?.id ?? '', x: null, y: null, bearing: null },
  });
  const [note, setNote] = useState('');
  const [large, setLarge] = useState<string | null>(null);
  const forbids =
    person === null
      ? 'Your account is nobody on this display yet; its owner says under Crew, People, who you are.'
      : may({ op: 'add', kind: 'photo', id: 'x', data: { by: person } });
  const keep = useMutation({
    mutationFn: (file: File) => crewApi.keepPhoto(link.id, file),
    onSuccess: (kept, file) => {
      const { section, ...place } = aim;
      const added = edit.add('added a photo', 'photo', freshId('photo'), {
        ...{ ...kept, ...place, section: section || null, by: person, note: note.trim() },
        taken: new Date(file.lastModified).toISOString(),
      });
      if (added) setNote('');
    },
  });
  const first = spot?.photos[0];
  const chosen = listOf(scene, 'photoSpot');
  const here = chosenSpotOf(scene, aim);
  const take = (file: File | undefined) => {
    setLarge(null);
    if (!file) return;
    if (file.size > MAX_BYTES)
      setLarge(
        `“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; a photo may have at most ${MAX_BYTES / 1e6}.`,
      );
    else keep.mutate(file);
  };
  return (
    <section aria-labelledby="take">
      <Heading id="take">One more photo</Heading>
      {forbids ? (
        <p className="ink-2">{forbids}</p>
      ) : (
        <>
          {first && (
            <button
              type="button"
              className="btn btn-xs mb-1"
              onClick={() =>
                setAim({ section: first.section ?? '', x: first.x, y: first.y, bearing: first.bearing })
              }
            >
              From the spot that is open
            </button>
          )}
          {chosen.length > 0 && (
            <SelectField
              label="Photo spot"
              value={here?.id ?? ''}
              options={[
                { value: '', word: 'none' },
                ...chosen.map(({ id, name }) => ({ value: id, word: name })),
              ]}
              onCommit={(id) => {
                const to = chosen.find((one) => one.id === id);
                if (to) setAim({ ...aim, x: to.x, y: to.y, bearing: to.bearing });
              }}
            />
          )}
          <SelectField
            label="Section"
            value={aim.section}
            options={sectionOptions(scene, 'the display')}
            onCommit={(section) => setAim({ ...aim, section })}
          />
          <ProgressMap
            label="Where the photo is taken: click the place, or type it below"
            marks={[
              ...spots.flatMap(({ photos: [{ x, y, bearing }] }) =>
                x === null || y === null ? [] : [{ x, y, bearing, word: 'A spot', picked: false }],
              ),
              ...chosen.map(({ x, y, bearing, name }) => ({ x, y, bearing, word: name, picked: false })),
              ...(aim.x === null || aim.y === null
                ? []
                : [{ x: aim.x, y: aim.y, bearing: aim.bearing, word: 'The new photo', picked: true }]),
            ]}
            onPick={(x, y) => setAim({ ...aim, x, y })}
          />
          <OptionalQuantityField
            measure="studs"
            step={0.25}
            label="From the west"
            none="no place"
            value={aim.x}
            min={-4096}
            max={4096}
            onCommit={(x) => setAim({ ...aim, x })}
          />
          <OptionalQuantityField
            measure="studs"
            step={0.25}
            label="From the north"
            none="no place"
            value={aim.y}
            min={-4096}
            max={4096}
            onCommit={(y) => setAim({ ...aim, y })}
          />
          <NumberField
            label="Looking, clockwise from north"
            unit="°"
            whole
            optional="not said"
            value={aim.bearing}
            min={0}
            max={359}
            onCommit={(bearing) => setAim({ ...aim, bearing })}
          />
          <TextField label="Note" value={note} max={200} onCommit={setNote} />
          <label className={`btn btn-primary w-full h-14 mt-2 ${keep.isPending ? 'btn-disabled' : ''}`}>
            <Camera size={18} aria-hidden /> {keep.isPending ? 'Sending …' : 'Take or choose a photo'}
            <input
              type="file"
              accept="image/*"
              className="sr-only"
              aria-label="Take or choose a photo"
              disabled={keep.isPending}
              onChange={(event) => {
                take(event.currentTarget.files?.[0]);
                event.currentTarget.value = '';
              }}
            />
          </label>
          {large && (
            <p role="alert" className="text-error text-xs">
              {large}
            </p>
          )}
          <Trouble error={keep.error} />
          <p className="ink-2 text-xs py-1">
            Kept at most 1,600 px wide, drawn again: where and with what it was taken is not kept. Only people
            of this display see it, until you put it on the public page.
          </p>
        </>
      )}
    </section>
  );
}
