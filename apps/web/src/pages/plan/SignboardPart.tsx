import { MM_PER_PLATE, MM_PER_STUD } from '@quarry/core/grid';
import {
  largestLetters,
  lengthOfWords,
  letterHeight,
  readUpTo,
  wordsOn,
  type Entity,
} from '@quarry/core/document';
import { paintOf } from '../../ui/paint.ts';
import { Basis, DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';

/** A signboard as it is read: drawn to scale, and from how far. */
export function SignboardPart({ sign }: { sign: Entity<'signboard'> }) {
  const { say } = useMeasureFormat();
  const letters = letterHeight(sign);
  const [wide, high] = [sign.w * MM_PER_STUD, sign.height * MM_PER_PLATE];
  const long = lengthOfWords(sign, letters);
  const isTooLong = letters > largestLetters(sign);
  return (
    <>
      <Heading>What it comes to</Heading>
      <svg
        viewBox={`${-wide * 0.02} ${-high * 0.02} ${wide * 1.04} ${high * 1.04}`}
        role="img"
        aria-label={`“${wordsOn(sign)}” as it is read`}
        className="block w-full max-h-32 my-1"
      >
        <rect width={wide} height={high} fill={paintOf(sign.colour)} />
        <text
          x={wide / 2}
          y={high / 2 + letters / 2}
          fill={paintOf(sign.ink)}
          // Capitals are about seven tenths of the size of their type.
          fontSize={letters / 0.7}
          textLength={long}
          lengthAdjust="spacingAndGlyphs"
          textAnchor="middle"
        >
          {wordsOn(sign)}
        </text>
      </svg>
      <dl>
        <DefinitionRow
          label="Letters"
          note={
            isTooLong ? `${largestLetters(sign).toFixed(1)} mm is the most that goes on` : 'capitals, guess'
          }
        >
          {letters.toFixed(1)} mm
        </DefinitionRow>
        <DefinitionRow label="Read up to" note="straight on">
          {say(Math.round(readUpTo(letters)), 'mm')}
        </DefinitionRow>
        <DefinitionRow label="Words are" note={`of ${say(wide, 'mm')}`}>
          {say(Math.round(long), 'mm')}
        </DefinitionRow>
      </dl>
      <Basis>
        Letters are read where they fill ten minutes of arc, twice what a normal eye needs (Snellen 1862). A
        letter with its gap is taken as seven tenths of its height wide (guess). Who reads it from where they
        stand: Sight, Buildings.
      </Basis>
    </>
  );
}
