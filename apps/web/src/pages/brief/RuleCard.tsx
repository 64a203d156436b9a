import { SIDE_WORDS, SIDES, SOURCE_RULES, STANCES, displayOf, listOf } from '@quarry/core/document';
import { RULE_CARDS, cardOf, isCard, evaluateCard } from '@quarry/core/venue';
import { MM_PER_STUD, countOf } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useResize } from '../../ui/ResizeDialog.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { FootprintLimit } from './FootprintLimit.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

const SOURCE_WORDS: Record<(typeof SOURCE_RULES)[number], string> = {
  any: 'Any parts',
  own: 'Own stock only',
  kit: 'Only from copies of one kit',
};

/** A contest's rules, and whether the scene keeps them as it stands. */
export function RuleCard({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetDisplay();
  const display = displayOf(scene);
  const card = RULE_CARDS.find((one) => isCard(scene, one));
  return (
    <section aria-labelledby="card">
      <Heading id="card">Rule card</Heading>
      <SelectField
        label="Begin from"
        value={card?.id ?? 'own'}
        disabled={disabled}
        options={[
          { value: 'own', word: 'Rules of its own' },
          ...RULE_CARDS.map(({ id, word }) => ({ value: id, word })),
        ]}
        onCommit={(id) => {
          const picked = RULE_CARDS.find((one) => one.id === id);
          if (!picked) return;
          const { id: _id, word, ...fields } = picked;
          set(`took the rule card ${word}`, fields);
        }}
      />
      <FootprintLimit disabled={disabled} />
      <QuantityField
        label="Over the base’s sides at most"
        value={display.cardOverhang}
        measure="studs"
        min={0}
        max={64}
        disabled={disabled}
        onCommit={(cardOverhang) => set('changed the rule card', { cardOverhang })}
      />
      {display.cardOverhang > 0 && (
        <QuantityField
          label="and only from this height"
          value={display.cardOverhangFrom}
          measure="plates"
          min={0}
          max={3000}
          disabled={disabled}
          onCommit={(cardOverhangFrom) => set('changed the rule card', { cardOverhangFrom })}
        />
      )}
      <SelectField
        label="Shown"
        value={display.stance}
        disabled={disabled}
        options={STANCES.map((value) => ({ value, word: capital(value) }))}
        onCommit={(stance) => set('changed the rule card', { stance })}
      />
      <SelectField
        label="Parts"
        value={display.sourceRule}
        disabled={disabled}
        options={SOURCE_RULES.map((value) => ({ value, word: SOURCE_WORDS[value] }))}
        onCommit={(sourceRule) => set('changed the rule card', { sourceRule })}
      />
      {display.sourceRule === 'kit' && (
        <>
          <TextField
            label="Kit"
            value={display.kitName}
            disabled={disabled}
            onCommit={(kitName) => set('changed the rule card', { kitName })}
          />
          <NumberField
            label="Copies"
            whole
            value={display.kitCopies}
            min={1}
            max={1000}
            disabled={disabled}
            onCommit={(kitCopies) => set('changed the rule card', { kitCopies: kitCopies ?? 1 })}
          />
        </>
      )}
      <Required disabled={disabled} />
    </section>
  );
}

const COLUMNS = 'minmax(0,1fr) 4.5rem 4.5rem auto';

function Required({ disabled }: { disabled: boolean }) {
  const scene = useScene('requirement');
  const edit = useEdit();
  const count = { whole: true, bare: true, max: 1000, disabled } as const;
  return (
    <Rows
      id="required"
      title="Required pieces"
      columns={COLUMNS}
      words={['Piece', 'Asked', 'Placed', '']}
      empty={<p className="ink-2 text-xs">None.</p>}
      add={{
        word: 'Add a required piece',
        disabled,
        onClick: () =>
          void edit.add('added a required piece', 'requirement', freshId('requirement'), {
            name: 'clear round 1×1',
          }),
      }}
    >
      {listOf(scene, 'requirement').map((piece) => (
        <Row key={piece.id} label={piece.name} columns={COLUMNS}>
          <TextField
            bare
            label="Piece"
            required
            value={piece.name}
            disabled={disabled}
            onCommit={(name) => edit.patch('renamed a required piece', 'requirement', piece, { name })}
          />
          <NumberField
            label={`Asked of ${piece.name}`}
            value={piece.count}
            min={1}
            {...count}
            onCommit={(asked) =>
              edit.patch('changed a required piece', 'requirement', piece, { count: asked ?? 1 })
            }
          />
          <NumberField
            label={`Placed of ${piece.name}`}
            value={piece.placed}
            min={0}
            {...count}
            onCommit={(placed) =>
              edit.patch('placed a required piece', 'requirement', piece, { placed: placed ?? 0 })
            }
          />
          <RemoveButton
            what={piece.name}
            disabled={disabled}
            onClick={() => edit.remove(`removed ${piece.name}`, 'requirement', piece.id, piece.v)}
          />
        </Row>
      ))}
    </Rows>
  );
}

/** The card held against everything placed, live. */
export function CardVerdict() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const { say } = useMeasureFormat();
  if (!ground) return null;
  const display = displayOf(scene);
  const state = cardOf(scene, ground.relief);
  const kept = evaluateCard(scene, state);
  const { limitW, limitD, limitHeight, cardOverhang } = display;
  const over = SIDES.filter((side) => state.overhang[side] > 0);
  const size = (w: number, d: number) => `${w} × ${d} studs`;
  const lines: { word: string; is: string; limit: string; kept: boolean | null }[] = [
    {
      word: 'Base',
      is: size(state.base.w, state.base.d),
      limit: limitW === null || limitD === null ? 'no limit' : `${limitW} × ${limitD}`,
      kept: kept.base,
    },
    {
      word: 'All that is placed',
      is: `${size(state.w, state.d)}, ${say(Math.round(state.w * MM_PER_STUD), 'mm')} × ${say(Math.round(state.d * MM_PER_STUD), 'mm')}`,
      limit: kept.all ? `${kept.all.w} × ${kept.all.d}` : 'no limit',
      kept: kept.all && kept.all.kept,
    },
    {
      word: 'Over the base',
      is:
        over.length > 0
          ? over.map((side) => `${SIDE_WORDS[side]} ${say(state.overhang[side], 'studs')}`).join(', ')
          : 'nothing',
      limit: `${countOf(cardOverhang, 'stud')}${cardOverhang > 0 ? ` from ${say(display.cardOverhangFrom, 'plates')} up` : ''}`,
      kept: kept.over,
    },
    {
      word: 'Height from the base',
      is: say(state.height, 'plates'),
      limit: limitHeight === null ? 'no limit' : say(limitHeight, 'plates'),
      kept: kept.height,
    },
    {
      word: 'Required pieces',
      is: `${kept.pieces.placed} of ${kept.pieces.asked}`,
      limit: 'all',
      kept: kept.pieces.kept,
    },
  ];
  return (
    <section aria-labelledby="verdict">
      <Heading id="verdict">The card, held against the scene</Heading>
      <DataTable
        label="The card against the scene"
        rows={lines}
        keyOf={({ word }) => word}
        columns={[
          { head: 'Rule', cell: ({ word }) => word },
          { head: 'Is', number: true, cell: ({ is }) => is },
          { head: 'Card', number: true, cell: ({ limit }) => limit, tone: () => 'quiet' },
          {
            head: 'Kept',
            number: true,
            cell: ({ kept: isKept }) => (isKept === null ? '–' : isKept ? 'yes' : 'no'),
            tone: ({ kept: isKept }) => (isKept === false ? 'error' : null),
          },
        ]}
      />
      <FitToCard />
      <Basis>
        The box round the footprint and all that stands in the scene, turned as it is: buildings, walls,
        plants, figures, flags and signboards, as a judge’s ruler finds it. What stands out is measured from
        the footprint’s own box, side by side; of a building it begins at its ground plus its “stands out
        from”, which is set on the Plan. The whole may be as large as the base with the overhang on both
        sides.
      </Basis>
    </section>
  );
}

/** Takes the scene to the size of the card, the way round that changes it least. */
function FitToCard() {
  const scene = useScene('display', 'footprint');
  const { limitW, limitD } = displayOf(scene);
  const { preview, forbids, resize } = useResize();
  const bounds = footprintBounds(scene);
  if (!bounds || limitW === null || limitD === null) return null;
  const [w, d] = bounds.w > bounds.d === limitW > limitD ? [limitW, limitD] : [limitD, limitW];
  if (bounds.w === w && bounds.d === d) return null;
  const resizing = preview(w, d);
  const reason = forbids(resizing);
  return (
    <p className="py-1 flex flex-wrap gap-2 items-center">
      <button
        type="button"
        className="btn btn-xs"
        disabled={reason !== null}
        title={reason ?? undefined}
        onClick={() => resize(resizing, w, d)}
      >
        Fit the scene to the card: {w} × {d} studs
      </button>
      {resizing.outside.length > 0 && (
        <span className="text-warning text-xs">
          <span aria-hidden>△</span> {countOf(resizing.outside.length, 'thing')} would lie outside
        </span>
      )}
    </p>
  );
}
