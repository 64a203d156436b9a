import { countOf, formatPlates } from '@quarry/core/grid';
import { PERCENT_PER_PLATE } from '@quarry/core/terrain';
import {
  listOf,
  DEGREES_PER_TURN,
  closureGap,
  pieceLength,
  reversed,
  trackLine,
  type Track,
  endsOf,
} from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { NumberField, QuantityField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { extendTrack } from './track.ts';

/** The pieces of a track, and whether its end meets another or its own beginning. */
export function TrackPart({ track, disabled }: { track: Track; disabled: boolean }) {
  const scene = useScene('level', 'track');
  const set = useSetFields({ kind: 'track', id: track.id });
  const start = (scene.level[track.level]?.height ?? 0) + track.offset;
  const { joints } = trackLine(track, start);
  const { first, last } = endsOf(joints);
  const ends = listOf(scene, 'track').flatMap((other) => {
    const its = endsOf(trackLine(other, (scene.level[other.level]?.height ?? 0) + other.offset).joints);
    const whole = [its.first, reversed(its.last)];
    return other.id === track.id
      ? track.pieces.length > 2
        ? [{ name: 'its own beginning', pose: first }]
        : []
      : whole.map((pose) => ({ name: other.name, pose }));
  });
  const meets = ends
    .map(({ name, pose }) => ({ name, ...closureGap(last, pose) }))
    .sort((a, b) => a.studs - b.studs)[0];
  const long = track.pieces.reduce((sum, piece) => sum + pieceLength(piece), 0);
  const steep = Math.max(
    ...track.pieces.map((piece) => (Math.abs(piece.rise) / pieceLength(piece)) * PERCENT_PER_PLATE),
  );
  const columns = '1.6rem 1fr 4.2rem 4.2rem 24px';
  const change = (i: number, fields: object) =>
    set('changed a piece of', {
      pieces: track.pieces.map((piece, j) => (i === j ? { ...piece, ...fields } : piece)),
    });
  return (
    <>
      <NumberField
        label="Heading"
        unit="× 22.5°"
        hint="0 east, 4 south, 8 west, 12 north"
        value={track.heading}
        min={0}
        max={15}
        whole
        disabled={disabled}
        onCommit={(heading) => set('turned', { heading: heading ?? 0 })}
      />
      <DefinitionRow label="Length" note={countOf(track.pieces.length, 'piece')}>
        {long.toFixed(1)} st
      </DefinitionRow>
      <DefinitionRow label="Steepest piece" note={`limit ${track.maxGrade} %`}>
        <span className={steep > track.maxGrade ? 'text-error font-semibold' : ''}>{steep.toFixed(1)} %</span>
      </DefinitionRow>
      <DefinitionRow
        label="Ends at"
        note={`${last.x.toFixed(1)}, ${last.y.toFixed(1)} heading ${last.heading * DEGREES_PER_TURN}°`}
      >
        {formatPlates(Math.round(last.z))}
      </DefinitionRow>
      {meets && meets.studs < 24 && (
        <DefinitionRow label={`Meets ${meets.name}`}>
          {meets.studs < 0.05 && meets.turn === 0 && meets.plates < 0.5 ? (
            'yes, it closes'
          ) : (
            <span className="text-warning">
              misses by {meets.studs.toFixed(1)} st{meets.turn > 0 && `, ${meets.turn * DEGREES_PER_TURN}°`}
              {meets.plates >= 0.5 && `, ${formatPlates(Math.round(meets.plates))}`}
            </span>
          )}
        </DefinitionRow>
      )}
      <Heading aside="keys , . /">Go on</Heading>
      <div className="join">
        {(['left', 'straight', 'right'] as const).map((go) => (
          <button
            key={go}
            type="button"
            className="btn btn-xs join-item"
            disabled={disabled}
            onClick={() => set('extended', extendTrack(track, go))}
          >
            {capital(go)}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-xs join-item"
          disabled={disabled || track.pieces.length < 2}
          onClick={() => set('shortened', { pieces: track.pieces.slice(0, -1) })}
        >
          Take the last off
        </button>
      </div>
      <Rows
        id="pieces"
        title="Pieces"
        columns={columns}
        words={['', 'Piece', { right: 'st' }, { right: 'climbs, p' }]}
      >
        {track.pieces.map((piece, i) => (
          <Row key={i} label={`Piece ${i + 1}`} columns={columns}>
            <span className="fig ink-2">{i + 1}</span>
            <span>{piece.go === 'straight' ? 'Straight' : `${capital(piece.go)} 22.5°`}</span>
            <QuantityField
              measure="studs"
              step={0.25}
              hint={null}
              bare
              label={piece.go === 'straight' ? `Piece ${i + 1}, length` : `Piece ${i + 1}, radius`}
              value={piece.go === 'straight' ? piece.length : piece.radius}
              min={0.5}
              max={512}
              disabled={disabled}
              onCommit={(value) =>
                value !== null && change(i, piece.go === 'straight' ? { length: value } : { radius: value })
              }
            />
            <QuantityField
              measure="plates"
              hint={null}
              bare
              label={`Piece ${i + 1}, climbs`}
              value={piece.rise}
              min={-30}
              max={30}
              disabled={disabled}
              onCommit={(rise) => change(i, { rise: rise ?? 0 })}
            />
            <RemoveButton
              what={`piece ${i + 1}`}
              disabled={disabled || track.pieces.length < 2}
              onClick={() => set('shortened', { pieces: track.pieces.filter((_, j) => j !== i) })}
            />
          </Row>
        ))}
      </Rows>
    </>
  );
}
