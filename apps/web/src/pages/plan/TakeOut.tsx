import { useState } from 'react';
import { toast } from 'sonner';
import { save } from '../../ui/save.ts';
import { PAPERS, PAPER_NAMES, fileName, planScales } from '@quarry/core/formats';
import { MM_PER_STUD } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, listOf } from '@quarry/core/document';
import { usePictures } from '../../board/pictures.ts';
import { drawPlanPicture } from '../../board/planPicture.ts';
import { useSheets } from '../../data/sheets.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { paperOf, useView } from '../../data/view.ts';
import { SelectField } from '../../ui/fields.tsx';
import { useDerived } from '../../workers/useDerived.ts';

/** How many of the scales that fit are offered. */
const MAX_SCALES = 5;

/** The plan on paper, as outlines, as heights and as a picture. */
export function TakeOut() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const { metric, hidden, setPaper } = useView();
  const paper = useView(paperOf);
  const images = usePictures(scene);
  const at = useSheets();
  const modules = listOf(scene, 'module');
  const [chosen, setChosen] = useState('');
  const module = modules.find((one) => one.id === chosen) ?? modules.at(0);
  const whole = footprintBounds(scene);
  const scales = whole ? planScales({ w: whole.w * MM_PER_STUD, d: whole.d * MM_PER_STUD }, paper) : [];

  const png = () => {
    if (!ground) return;
    const canvas = drawPlanPicture({ scene, ground, hidden, metric, images });
    if (!canvas) return;
    canvas.toBlob((blob) => {
      if (!blob) {
        toast.error('The browser could not make the picture; hide some layers and try again.');
        return;
      }
      save(blob, fileName([displayOf(scene).name, 'plan'], 'png'));
    });
  };
  const item = 'btn btn-xs btn-ghost justify-start font-normal w-full';
  return (
    <div className="w-64">
      <div className="px-2 pt-1">
        <SelectField
          label="Paper"
          value={paper}
          options={PAPER_NAMES.map((name) => ({ value: name, word: PAPERS[name].word }))}
          onCommit={setPaper}
        />
      </div>
      <a className={item} href={at('plan.pdf')} target="_blank" rel="noreferrer">
        Plan on one sheet, PDF
      </a>
      <p className="flex items-center gap-1 px-2 text-xs">
        <span className="ink-2">at</span>
        {scales.slice(0, MAX_SCALES).map((scale) => (
          <a
            key={scale}
            className="link link-hover fig"
            href={at('plan.pdf', { scale: String(scale) })}
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
      {module && (
        <>
          <a className={item} href={at('tiles.pdf', { of: 'modules' })} target="_blank" rel="noreferrer">
            Tiles 1:1 of each module, PDF
          </a>
          <a className={item} href={at('layers.pdf')} target="_blank" rel="noreferrer">
            Build sheets of all modules, PDF
          </a>
          <div className="px-2 py-0.5">
            <SelectField
              label="Module"
              value={module.id}
              options={modules.map((one) => ({ value: one.id, word: one.name }))}
              onCommit={setChosen}
            />
          </div>
          {(
            [
              ['tiles.pdf', `Tiles 1:1 of ${module.name}, PDF`],
              ['layers.pdf', `Build sheets of ${module.name}, PDF`],
            ] as const
          ).map(([file, word]) => (
            <a
              key={file}
              className={item}
              href={at(file, { module: module.id })}
              target="_blank"
              rel="noreferrer"
            >
              {word}
            </a>
          ))}
        </>
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
