import { useEffect, useRef, useState } from 'react';
import { type Scene } from '@quarry/core/document';

/** Pictures under the plan, loaded: by id, for as long as their image stays the same. */
export function usePictures({ picture }: Scene): ReadonlyMap<string, CanvasImageSource> {
  const [loaded, setLoaded] = useState<ReadonlyMap<string, HTMLImageElement>>(new Map());
  const sources = useRef(new Map<string, string>());
  useEffect(() => {
    for (const { id, image } of Object.values(picture)) {
      if (sources.current.get(id) === image) continue;
      sources.current.set(id, image);
      const element = new Image();
      element.onload = () => setLoaded((now) => new Map(now).set(id, element));
      element.src = image;
    }
  }, [picture]);
  return loaded;
}
