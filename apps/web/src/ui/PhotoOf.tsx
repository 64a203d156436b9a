import { useMutation } from '@tanstack/react-query';
import { Camera } from 'lucide-react';
import { useId } from 'react';
import { sectionsOf, type Change } from '@quarry/core/document';
import { crewApi, photoUrl } from '../data/crewApi.ts';
import { freshId, useDisplay, useLink, useScene } from '../data/useDisplay.tsx';
import { Trouble } from './forms.tsx';

/** The photo of one thing: taken with a camera or chosen, then shown small; pressed, it opens. */
export function PhotoOf({
  of,
  photo: photoId,
  disabled,
  onKept,
}: {
  /** What it shows. */
  of: string;
  photo: string | null;
  disabled: boolean;
  /** The id of a photo that was kept, and the change that adds it to the display. */
  onKept: (photo: string, added: Change) => void;
}) {
  const scene = useScene('photo', 'section');
  const person = useDisplay(({ actor }) => actor.person);
  const link = useLink();
  const input = useId();
  const keep = useMutation({
    mutationFn: (file: File) => crewApi.keepPhoto(link.id, file),
    onSuccess: (kept) => {
      const id = freshId('photo');
      const section = sectionsOf(scene, person)[0]?.id ?? null;
      onKept(id, {
        ...{ op: 'add', kind: 'photo', id },
        data: { ...kept, section, by: person, taken: new Date().toISOString(), note: of },
      });
    },
  });
  const photo = photoId === null ? undefined : scene.photo[photoId];
  if (photo)
    return (
      <a href={photoUrl(link.id, photo.file)} target="_blank" rel="noreferrer">
        <img src={photoUrl(link.id, photo.file, true)} alt={`Photo of ${of}`} className="h-10 border hair" />
      </a>
    );
  const isOff = disabled || person === null || keep.isPending;
  return (
    <>
      <label htmlFor={input} className={`btn btn-xs ${isOff ? 'btn-disabled' : ''}`}>
        <Camera size={12} aria-hidden /> {keep.isPending ? 'Sending …' : 'Photo'}
      </label>
      <input
        id={input}
        type="file"
        accept="image/*"
        capture="environment"
        className="sr-only"
        aria-label={`Photo of ${of}`}
        disabled={isOff}
        onChange={(event) => {
          const [file] = event.currentTarget.files ?? [];
          if (file) keep.mutate(file);
        }}
      />
      <Trouble error={keep.error} />
    </>
  );
}
