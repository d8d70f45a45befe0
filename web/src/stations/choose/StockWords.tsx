/** The stock, its fence, what is left of it and what carries it: the words at the end of the sentence. */
import { t } from '@lingui/core/macro';
import type { Cut, Moisture, Saw, Side, Units } from '../../api/types';
import type { Choice } from '../../ui/ChoiceMenu';
import { ChoiceWord, LengthWord } from '../../ui/Word';
import { picks } from '../../cut/sentence';

const moistures: Choice<Moisture>[] = [
  { value: 'dry', name: t`Dry` },
  { value: 'wet', name: t`Wet or treated` },
  { value: 'frozen', name: t`Frozen` },
];
const tensions: Choice<'still' | 'moves'>[] = [
  { value: 'still', name: t`no tension` },
  { value: 'moves', name: t`with tension` },
];
const fences: Choice<Side>[] = [
  { value: 'left', name: 'left' },
  { value: 'right', name: 'right' },
];

interface Props {
  cut: Cut;
  saw: Saw;
  fence: Side | undefined; // of the blade that the fence goes to
  units: Units;
  problem: { field: string | undefined; message: string } | undefined;
  onChange: (part: Partial<Cut>) => void;
}

export function StockWords({ cut, saw, fence, units, problem, onChange }: Props) {
  const says = (field: keyof Cut) => (problem?.field === `cut.${field}` ? problem.message : undefined);
  const sizes = picks[units];
  return (
    <>
      <ChoiceWord
        label={t`Stock`}
        value={cut.moisture ?? 'dry'}
        choices={moistures}
        onChoose={(moisture) => onChange({ moisture: moisture === 'dry' ? undefined : moisture })}
      />{' '}
      {t`stock`},{' '}
      <ChoiceWord
        label={t`Tension`}
        value={cut.moves ? 'moves' : 'still'}
        choices={tensions}
        onChoose={(it) => onChange({ moves: it === 'moves' || undefined })}
      />
      .
      {fence && (
        <>
          {' '}
          {t`Fence to the`}{' '}
          <ChoiceWord
            label={t`Fence`}
            value={cut.fence_side ?? fence}
            choices={fences}
            onChoose={(fence_side) => onChange({ fence_side })}
          />
          .
        </>
      )}
      {cut.direction === 'crosscut' ? (
        <>
          {' '}
          {t`Cut to length:`}{' '}
          <LengthWord
            label={t`Piece`}
            mm={cut.piece_mm}
            units={units}
            picks={sizes.p}
            unsaid={t`not recorded`}
            onChoose={(piece_mm) => onChange({ piece_mm })}
            wrong={says('piece_mm') !== undefined}
            problem={says('piece_mm')}
          />
          .
        </>
      ) : (
        <>
          {' '}
          {t`From a board`}{' '}
          <LengthWord
            label={t`Board width`}
            mm={cut.board_mm}
            units={units}
            picks={sizes.w}
            unsaid={t`of any width`}
            onChoose={(board_mm) => onChange({ board_mm })}
            wrong={says('board_mm') !== undefined}
            problem={says('board_mm')}
          />
          .
        </>
      )}
      {!!saw.carriage_mm && (
        <>
          {' '}
          {t`Guided by`}{' '}
          <ChoiceWord
            label={t`Guide`}
            value={cut.carriage ? 'carriage' : 'usual'}
            choices={[
              {
                value: 'usual',
                name: cut.direction === 'crosscut' ? t`the miter gauge` : t`the rip fence`,
              },
              { value: 'carriage', name: t`the sliding carriage` },
            ]}
            onChoose={(it) => onChange({ carriage: it === 'carriage' || undefined })}
            wrong={says('carriage') !== undefined}
          />
          .
        </>
      )}
    </>
  );
}
