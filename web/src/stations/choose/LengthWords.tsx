/** What a cut leaves on either side, and what carries it: the words at the end of the sentence. */
import { t } from '@lingui/core/macro';
import type { Cut, Saw, Units } from '../../api/types';
import { ChoiceWord, LengthWord } from '../../ui/Word';
import { picks } from './sentence';

interface Props {
  cut: Cut;
  saw: Saw;
  units: Units;
  problem: { field: string | undefined; message: string } | undefined;
  onChange: (part: Partial<Cut>) => void;
}

export function LengthWords({ cut, saw, units, problem, onChange }: Props) {
  const says = (field: keyof Cut) => (problem?.field === `cut.${field}` ? problem.message : undefined);
  const sizes = picks[units];
  return (
    <>
      {cut.direction === 'crosscut' ? (
        <>
          {' '}
          {t`Cut to length:`}{' '}
          <LengthWord
            label={t`Piece`}
            mm={cut.piece_mm}
            units={units}
            picks={sizes.p}
            unsaid={t`not said`}
            onChoose={(piece_mm) => onChange({ piece_mm })}
            wrong={says('piece_mm') !== undefined}
            problem={says('piece_mm')}
          />
          .
        </>
      ) : (
        <>
          {' '}
          {t`Off a board`}{' '}
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
