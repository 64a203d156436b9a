import type { ReactNode } from 'react';
import {
  STUD,
  countOf,
  formatKg,
  formatPlates,
  formatStuds,
  formatPercent,
  present,
} from '@quarry/core/grid';
import {
  heightRange,
  listedMass,
  offWall,
  plotCard,
  standsOn,
  tipsOfPlot,
  weightOf,
} from '@quarry/core/terrain';
import { MAX_UNTIED, leanCard, overhangCards } from '@quarry/core/stability';
import {
  JUMPER_PLATES,
  PART_USES,
  halfOff,
  SIDES,
  SIDE_WORDS,
  builtRect,
  isRound,
  displayOf,
  turnRadius,
  plotBounds,
  type Plot,
} from '@quarry/core/document';
import { useDisplay } from '../../data/useDisplay.tsx';
import { QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow, Quantity } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { CutRows } from './CutRows.tsx';
import { NotchRows, RecessRows } from './NotchRows.tsx';

interface PartProps {
  plot: Plot;
  disabled: boolean;
}

/** The plot card: what a building's numbers come to, what lifts off, and what its roof would hit. */
export function PlotPart({ plot, disabled }: PartProps) {
  return (
    <>
      <PlotNumbers plot={plot} />
      {plot.mayCut && <CutRows plot={plot} disabled={disabled} />}
      {!isRound(plot) && <NotchRows plot={plot} disabled={disabled} />}
      {!isRound(plot) && <RecessRows plot={plot} disabled={disabled} />}
      <Overhang plot={plot} disabled={disabled} />
      <LiftOff plot={plot} disabled={disabled} />
      <Fittings plot={plot} disabled={disabled} />
    </>
  );
}

/** Its real size, floors, heights, mass, and how near it is to tipping. */
function PlotNumbers({ plot }: { plot: Plot }) {
  const scene = useDisplay(({ scene: now }) => now);
  const ground = useDerived(({ ground: compiled }) => compiled);
  const { rough, area } = useMeasureFormat();
  const { ratio, tipLimit, studHold } = displayOf(scene);
  const card = plotCard(plot, ratio);
  const range = ground ? heightRange(ground.relief, plotBounds(plot)) : null;
  const foot = ground ? standsOn(scene, ground.relief, plot) : null;
  const weight = weightOf(plot, listedMass(scene));
  const tips = tipsOfPlot(plot, builtRect(plot), weight);
  const lean = leanCard(plot, weight, studHold);
  return (
    <>
      <Heading>At 1:{ratio}</Heading>
      <dl>
        <DefinitionRow label="Real size">
          {rough(card.trueW)} × {rough(card.trueD)}
        </DefinitionRow>
        <DefinitionRow
          label="Inside a floor"
          note={`${area(card.trueFloor)} · ${countOf(card.floors, 'stud')} on ${countOf(Math.max(1, plot.storeys), 'floor')}`}
        >
          {countOf(card.inside, 'stud')}
        </DefinitionRow>
        {card.storey !== null && (
          <DefinitionRow label="A storey">
            <Quantity value={Math.round(card.storey)} measure="plates" />
          </DefinitionRow>
        )}
        {card.sweptMore !== 0 && (
          <DefinitionRow
            label="Touches, turned"
            note={`${card.sweptMore > 0 ? '+' : '−'}${Math.abs(card.sweptMore)} against unturned`}
          >
            {card.swept} studs
          </DefinitionRow>
        )}
        {range && foot !== null && (
          <DefinitionRow label="Stands at">
            {formatPlates(foot)}
            {range.low !== foot && ` (lowest ground ${formatPlates(range.low)})`}
          </DefinitionRow>
        )}
        {halfOff(plot) && (
          <DefinitionRow
            label="Raised by jumpers"
            note="it stands half a stud (4 mm) off the grid; a jumper each 4 studs of its walls"
          >
            <Quantity value={JUMPER_PLATES} measure="plates" />
          </DefinitionRow>
        )}
        {foot !== null && (
          <DefinitionRow label="Roof at">
            <Quantity value={foot + plot.height} measure="plates" />
          </DefinitionRow>
        )}
        <DefinitionRow
          label="Mass, estimate"
          note={weight.listed ? 'by its parts list' : 'by its plain shell, a guess'}
        >
          {formatKg(weight.grams)}
        </DefinitionRow>
        <DefinitionRow label="Tips at, on its own feet" note={`limit ${tipLimit}°`}>
          <span className={tips < tipLimit ? 'text-error font-semibold' : ''}>
            {tips < tipLimit && '! '}
            {tips.toFixed(0)}°
          </span>
        </DefinitionRow>
        {lean && (
          <>
            <DefinitionRow label="Top is off its foot by">
              {formatStuds(Math.round(lean.out * STUD))}
            </DefinitionRow>
            <DefinitionRow
              label="Ties along it"
              note={`${lean.length.toFixed(1)} studs long; one each ${MAX_UNTIED} at least`}
            >
              <span className={lean.ties < lean.wanted ? 'text-warning font-semibold' : ''}>
                {lean.ties < lean.wanted && '△ '}
                {lean.ties} of {lean.wanted}
              </span>
            </DefinitionRow>
            <DefinitionRow
              label="Hold of its foot, used"
              note={`${studHold} g a stud, a guess (Cut, Stability)`}
            >
              <span className={lean.share > 1 ? 'text-error font-semibold' : ''}>
                {lean.share > 1 && '! '}
                {Number.isFinite(lean.share) ? formatPercent(lean.share) : 'nothing holds it'}
              </span>
            </DefinitionRow>
          </>
        )}
        {plot.mount === 'turntable' && (
          <DefinitionRow label="Sweeps, turning">
            {formatStuds(Math.round(2 * turnRadius(plot) * STUD))} across
          </DefinitionRow>
        )}
        {card.connectors.map(({ from, to }) => (
          <DefinitionRow key={from} label="Connector, each side" note="from the front">
            studs {from + 1} to {to}
          </DefinitionRow>
        ))}
      </dl>
      <Basis>
        Inside: width and depth less two walls, the pavement and what is left out of it with the walls round
        that. Mass: the parts list that is said to be this building’s (Stockpile, Lists); without one its
        walls, a floor of plates for each storey and a roof, with its ornament, at 0.096 g a stud and plate.
        Tips at: how far its centre of mass is from the nearest edge of its foot, over its height. Connectors:
        9 + 2 + 10 + 2 + 9 = 32 studs (common practice).
        {plot.streetFront &&
          card.connectors.length === 0 &&
          ' Its sides are not 32 studs deep: no standard connectors.'}
      </Basis>
    </>
  );
}

/** What stands out over its walls, and how much of their hold that takes. */
function Overhang({ plot, disabled }: PartProps) {
  const scene = useDisplay(({ scene: now }) => now);
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const { studHold } = displayOf(scene);
  const overhangs = overhangCards(plot, listedMass(scene), studHold);
  return (
    <>
      <Heading aside={`from ${formatPlates(plot.overhangFrom)} up`}>Stands out over its walls</Heading>
      {SIDES.map((side) => (
        <QuantityField
          key={side}
          label={`To the ${SIDE_WORDS[side]}`}
          value={plot.overhang[side]}
          measure="studs"
          min={0}
          max={64}
          disabled={disabled}
          onCommit={(by) => set('changed what stands out of', { overhang: { ...plot.overhang, [side]: by } })}
        />
      ))}
      <dl>
        {overhangs.map(({ side, grams, share }) => (
          <DefinitionRow
            key={side}
            label={`Hold of the wall, used to the ${SIDE_WORDS[side]}`}
            note={`${Math.round(grams)} g stand out; ${studHold} g a stud, a guess (Cut, Stability)`}
          >
            <span className={share > 1 ? 'text-error font-semibold' : ''}>
              {share > 1 && '! '}
              {formatPercent(share)}
            </span>
          </DefinitionRow>
        ))}
      </dl>
    </>
  );
}

/** What lifts off it: roofs and floors, with what each clears. */
function LiftOff({ plot, disabled }: PartProps) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const parts = (fields: Record<string, unknown>) => set('changed what lifts off', fields);
  return (
    <Rows
      id="lift-off"
      title="Lifts off"
      columns={COLUMNS}
      words={['Part, and what it is', { right: 'high' }, { right: 'clears' }]}
      add={{
        word: 'Part',
        disabled: disabled || plot.parts.length >= 24,
        onClick: () =>
          parts({
            parts: [
              ...plot.parts,
              {
                name: plot.parts.length === 0 ? 'Roof' : `Floor ${plot.parts.length}`,
                use: plot.parts.length === 0 ? 'roof' : 'floor',
                height: 12,
                clears: 18,
              },
            ],
          }),
      }}
    >
      {plot.parts.map((part, i) => {
        const change = (fields: object) =>
          parts({ parts: plot.parts.map((one, j) => (i === j ? { ...one, ...fields } : one)) });
        return (
          <NamedRow
            key={i}
            nth={`Part ${i + 1}`}
            name={part.name}
            disabled={disabled}
            onName={(name) => change({ name })}
            onRemove={() => parts({ parts: plot.parts.filter((_, j) => j !== i) })}
          >
            <SelectField
              bare
              label={`${part.name}, it is a`}
              value={part.use}
              disabled={disabled}
              options={PART_USES.map((value) => ({ value, word: capital(value) }))}
              onCommit={(use) => change({ use })}
            />
            <PlatesField
              label={`${part.name}, high`}
              value={part.height}
              min={1}
              disabled={disabled}
              onCommit={(height) => change({ height })}
            />
            <PlatesField
              label={`${part.name}, clears`}
              value={part.clears}
              disabled={disabled}
              onCommit={(clears) => change({ clears })}
            />
          </NamedRow>
        );
      })}
    </Rows>
  );
}

/** Furniture and doors, and what is left between them and the roof or floor over them. */
function Fittings({ plot, disabled }: PartProps) {
  const { ratio } = useDisplay(({ scene }) => displayOf(scene));
  const { say } = useMeasureFormat();
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const { clearances } = plotCard(plot, ratio);
  return (
    <Rows
      id="fittings"
      title="Under the roof"
      columns={COLUMNS}
      words={['Furniture or door, stands at', { right: 'high' }, { right: 'off wall' }]}
      add={{
        word: 'Fitting',
        disabled: disabled || plot.fittings.length >= 40,
        onClick: () =>
          set('furnished', {
            fittings: [...plot.fittings, { name: `Fitting ${plot.fittings.length + 1}`, height: 9 }],
          }),
      }}
    >
      {plot.fittings.map((fitting, i) => {
        const change = (fields: object) =>
          set('furnished', {
            fittings: plot.fittings.map((one, j) => (i === j ? { ...one, ...fields } : one)),
          });
        const { clear, ceiling, under } = present(clearances[i], 'what is over a piece of furniture');
        const over = under === 'roof' ? 'roof' : 'next floor';
        return (
          <div key={i}>
            <NamedRow
              nth={`Fitting ${i + 1}`}
              name={fitting.name}
              disabled={disabled}
              onName={(name) => change({ name })}
              onRemove={() => set('furnished', { fittings: plot.fittings.filter((_, j) => j !== i) })}
            >
              <PlatesField
                label={`${fitting.name}, stands at`}
                value={fitting.on}
                disabled={disabled}
                onCommit={(on) => change({ on })}
              />
              <PlatesField
                label={`${fitting.name}, high`}
                value={fitting.height}
                min={1}
                disabled={disabled}
                onCommit={(height) => change({ height })}
              />
              <QuantityField
                bare
                label={`${fitting.name}, off the wall`}
                value={offWall(plot, fitting)}
                measure="studs"
                hint={null}
                min={0}
                max={256}
                disabled={disabled || fitting.place !== null}
                onCommit={(fromWall) => change({ fromWall })}
              />
            </NamedRow>
            <p className={`text-[11px] ${clear < 0 ? 'text-error' : 'ink-2'}`}>
              {clear < 0
                ? `The ${over} is at ${say(Math.round(ceiling), 'plates')} there and hits it by ${say(Math.ceil(-clear), 'plates')}.`
                : `${say(Math.floor(clear), 'plates')} clearance under the ${over}.`}
            </p>
          </div>
        );
      })}
    </Rows>
  );
}

const COLUMNS = '1.4fr 1fr 1fr';

/** A part or a fitting: its name with the button that takes it away, and under it its figures. */
function NamedRow({
  nth,
  name,
  disabled,
  onName,
  onRemove,
  children,
}: {
  nth: string;
  name: string;
  disabled: boolean;
  onName: (name: string) => void;
  onRemove: () => void;
  children: ReactNode;
}) {
  return (
    <div className="pt-1">
      <Row label={`Name of ${name}`} columns="minmax(0,1fr) 24px">
        <TextField bare required label={nth} value={name} disabled={disabled} onCommit={onName} />
        <RemoveButton what={name} disabled={disabled} onClick={onRemove} />
      </Row>
      <Row label={name} columns={COLUMNS}>
        {children}
      </Row>
    </div>
  );
}

/** A height in plates, its unit stands in the column head. */
function PlatesField({
  label,
  value,
  min = 0,
  disabled,
  onCommit,
}: {
  label: string;
  value: number;
  min?: number;
  disabled: boolean;
  onCommit: (plates: number) => void;
}) {
  return (
    <QuantityField
      bare
      label={label}
      value={value}
      measure="plates"
      hint={null}
      min={min}
      max={3000}
      disabled={disabled}
      onCommit={onCommit}
    />
  );
}
