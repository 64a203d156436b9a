import { toast } from 'sonner';
import { save } from '../../ui/save.ts';
import { MM_PER_STUD } from '@quarry/core/lattice';
import { footprintBounds } from '@quarry/core/relief';
import { listOf } from '@quarry/core/scene';
import { drawSheet } from '../../board/drawSheet.ts';
import { groundArt } from '../../board/groundArt.ts';
import { PALETTES } from '../../board/palette.ts';
import { usePictures } from '../../board/pictures.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useSurvey } from '../../workers/survey.tsx';

/** Scales one may print a plan at on one sheet. */
const SCALES = [5, 10, 20, 50] as const;
/** The longest side of the picture, px. */
const MOST_PIXELS = 6000;

/** The plan on paper, as outlines, as heights and as a picture. */
export function TakeOut() {
  const scene = useDisplay(({ scene }) => scene);
  const { id } = useLink();
  const ground = useSurvey(({ ground }) => ground);
  const { metric, hidden } = useView();
  const images = usePictures(scene);
  const at = (file: string, more = '') => `/api/displays/${id}/sheets/${file}?units=${metric}${more}`;
  const modules = listOf(scene, 'module');

  const png = () => {
    const whole = footprintBounds(scene);
    if (!whole || !ground) return;
    const margin = 4;
    const scale = Math.min(12, MOST_PIXELS / (Math.max(whole.w, whole.d) + 2 * margin));
    const canvas = document.createElement('canvas');
    canvas.width = Math.round((whole.w + 2 * margin) * scale);
    canvas.height = Math.round((whole.d + 2 * margin) * scale);
    const ctx = canvas.getContext('2d');
    if (!ctx) return;
    const palette = PALETTES.day;
    drawSheet(ctx, {
      scene,
      art: groundArt(ground, palette, null),
      findings: [],
      palette,
      view: { scale, x: (margin - whole.x) * scale, y: (margin - whole.y) * scale },
      width: canvas.width,
      height: canvas.height,
      hidden,
      metric,
      cut: null,
      images,
    });
    canvas.toBlob((blob) => {
      if (!blob) {
        toast.error('The browser could not make the picture; hide some layers and try again.');
        return;
      }
      save(blob, 'plan.png');
    });
  };
  const item = 'btn btn-xs btn-ghost justify-start font-normal w-full';
  return (
    <div className="w-64">
      <a className={item} href={at('plan.pdf')} target="_blank" rel="noreferrer">
        Plan on one sheet, PDF
      </a>
      <p className="flex items-center gap-1 px-2 text-xs">
        <span className="ink-2">at</span>
        {SCALES.map((scale) => (
          <a
            key={scale}
            className="link link-hover fig"
            href={at('plan.pdf', `&scale=${scale}`)}
            target="_blank"
            rel="noreferrer"
          >
            1:{scale}
          </a>
        ))}
      </p>
      <a className={item} href={at('tiles.pdf')} target="_blank" rel="noreferrer">
        Tiles 1:1 of the whole plan, PDF
      </a>
      {modules.length > 0 && (
        <p className="flex flex-wrap items-center gap-1 px-2 text-xs">
          <span className="ink-2">of one module</span>
          {modules.slice(0, 24).map((module) => (
            <a
              key={module.id}
              className="link link-hover fig"
              href={at('tiles.pdf', `&module=${module.id}`)}
              target="_blank"
              rel="noreferrer"
            >
              {module.name}
            </a>
          ))}
        </p>
      )}
      <button type="button" className={item} onClick={png}>
        Picture of the plan, PNG
      </button>
      <a className={item} href={at('plan.svg')} target="_blank" rel="noreferrer">
        Outlines in true mm, SVG
      </a>
      <a className={item} href={at('plan.dxf')}>
        Outlines in true mm, DXF
      </a>
      <a className={item} href={at('heights.asc')}>
        Heights of each stud, ASCII grid
      </a>
      <p className="ink-2 text-[11px] px-2 py-1">
        One stud is {MM_PER_STUD} mm. Print tiles without scaling and join them by their crosses.
      </p>
    </div>
  );
}
