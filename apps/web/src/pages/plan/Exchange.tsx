import { FileDown, FileUp } from 'lucide-react';
import { useRef } from 'react';
import { toast } from 'sonner';
import { MM_PER_STUD } from '@quarry/core/lattice';
import { footprintBounds } from '@quarry/core/relief';
import { listOf } from '@quarry/core/scene';
import { drawSheet } from '../../board/drawSheet.ts';
import { groundArt } from '../../board/groundArt.ts';
import { PALETTES } from '../../board/palette.ts';
import { usePictures } from '../../board/pictures.ts';
import { useDisplay, useEdit, useLink, useMay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useSurvey } from '../../workers/survey.tsx';
import { importFile } from './imports.ts';
import { Menu } from './Toolbar.tsx';

/** Scales one may print a plan at on one sheet. */
const SCALES = [5, 10, 20, 50] as const;
/** The longest side of the picture, px. */
const MOST_PIXELS = 6000;

/** What comes into the plan and goes out of it. */
export function Exchange() {
  const { scene } = useDisplay();
  const { id } = useLink();
  const { ground } = useSurvey();
  const edit = useEdit();
  const may = useMay();
  const { metric, hidden, pickAll } = useView();
  const images = usePictures(scene);
  const input = useRef<HTMLInputElement>(null);
  const means = useRef<'picture' | 'ground'>('picture');
  const at = (file: string, more = '') => `/api/displays/${id}/sheets/${file}?units=${metric}${more}`;
  const modules = listOf(scene, 'module');
  const forbids = may({ op: 'add', kind: 'picture', id: 'x', data: {} });

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
      const link = document.createElement('a');
      link.href = URL.createObjectURL(blob);
      link.download = 'plan.png';
      link.click();
      URL.revokeObjectURL(link.href);
    });
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    const read = await importFile(scene, file, means.current);
    if (!read.ok) toast.error(read.error, { duration: 12_000 });
    else if (edit.change(read.label, read.changes)) pickAll(read.picks);
  };
  const choose = (as: 'picture' | 'ground', accept: string) => {
    means.current = as;
    if (!input.current) return;
    input.current.accept = accept;
    input.current.click();
  };
  const item = 'btn btn-xs btn-ghost justify-start font-normal w-full';
  return (
    <>
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label="A file for the plan"
        onChange={(event) => {
          void take(event.currentTarget.files?.[0]);
          event.currentTarget.value = '';
        }}
      />
      <Menu name="Bring in" worded={false} end label={<FileUp size={13} aria-hidden />}>
        {(close) => (
          <div className="w-60">
            {forbids && <p className="ink-2 text-xs p-1">{forbids}</p>}
            {(
              [
                ['A picture to draw after …', 'picture', 'image/png,image/jpeg,image/webp'],
                ['Ground from a height file …', 'ground', '.asc,.pgm,image/png'],
                ['Pads from an exported plan …', 'picture', '.svg'],
              ] as const
            ).map(([word, as, accept]) => (
              <button
                key={word}
                type="button"
                className={item}
                disabled={forbids !== null}
                onClick={() => {
                  close();
                  choose(as, accept);
                }}
              >
                {word}
              </button>
            ))}
            <p className="ink-2 text-[11px] px-2 py-1">
              Height files: ESRI ASCII grid, PGM or grey PNG. Pictures are made smaller and drawn anew;
              nothing else of the file is kept.
            </p>
          </div>
        )}
      </Menu>
      <Menu name="Print and take out" worded={false} end label={<FileDown size={13} aria-hidden />}>
        {() => (
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
        )}
      </Menu>
    </>
  );
}
