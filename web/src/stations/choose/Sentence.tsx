/** The cut as a sentence whose words are its controls. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Bed, Cut, Form, Material, Saw, Side, Support, Units } from '../../api/types';
import { directionWords, formWords, supportWords } from '../../drawings/words';
import { lazy, Suspense } from 'react';
import { AngleWord, ChoiceWord, CountWord, LengthWord } from '../../ui/Word';
import type { Choice } from '../../ui/ChoiceMenu';
import { MaterialWord } from './MaterialWord';
import { finishes, finishWord, picks } from '../../cut/sentence';

const StockWords = lazy(() => import('./StockWords').then((m) => ({ default: m.StockWords })));

interface Props {
  cut: Cut;
  settled: Cut | undefined; // with what the cut left out filled in by the server
  faces: { exit: string; other: string | undefined } | undefined; // where teeth leave
  showFace: string | undefined;
  supports: { exit: Support[]; other: Support[] } | undefined; // what can hold them
  fence: Side | undefined; // of the blade that the fence goes to
  saws: Saw[];
  materials: Material[];
  units: Units;
  problem: { field: string | undefined; message: string } | undefined;
  onChange: (part: Partial<Cut>) => void;
}

const forms = (Object.keys(formWords) as Form[]).map((value) => ({ value, name: formWords[value] }));
const beds: Choice<Bed>[] = [
  { value: 'air', name: t`with nothing below` },
  { value: 'runners', name: t`on runners` },
  { value: 'sheet', name: t`on a sacrificial sheet` },
];
const angles = [0, 5, 10, 15, 22.5, 30, 45];

export function Sentence({
  cut,
  settled,
  faces,
  showFace,
  supports,
  fence,
  saws,
  materials,
  units,
  problem,
  onChange,
}: Props) {
  const saw = saws.find((s) => s.id === cut.saw_id)!;
  const wrong = (field: keyof Cut) => problem?.field === `cut.${field}`;
  const says = (field: keyof Cut) => (wrong(field) ? problem?.message : undefined);
  const sizes = picks[units];
  const supportChoices = (all: Support[] = []) => all.map((s) => ({ value: s, name: supportWords[s] }));
  const long = (
    <LengthWord
      label={t`Length`}
      mm={cut.length_mm}
      units={units}
      picks={sizes.l}
      onChoose={(length_mm) => onChange({ length_mm })}
      wrong={wrong('length_mm')}
      problem={says('length_mm')}
    />
  );
  const wide = (
    <LengthWord
      label={t`Width`}
      mm={cut.width_mm}
      units={units}
      picks={sizes.w}
      onChoose={(width_mm) => onChange({ width_mm })}
      wrong={wrong('width_mm')}
      problem={says('width_mm')}
    />
  );
  const deep = cut.depth_mm !== undefined && (
    <LengthWord
      label={t`Depth`}
      mm={cut.depth_mm}
      units={units}
      picks={sizes.d}
      onChoose={(depth_mm) => onChange({ depth_mm })}
      wrong={wrong('depth_mm')}
      problem={says('depth_mm')}
    />
  );
  const sawName = (
    <ChoiceWord
      label={t`Saw`}
      value={cut.saw_id}
      choices={saws.map((s) => ({ value: s.id, name: s.name }))}
      onChoose={(saw_id) => onChange({ saw_id })}
    />
  );
  const motion = settled?.motion && settled.motion !== 'along' && (
    <ChoiceWord
      label={t`Motion`}
      value={settled.motion}
      choices={[
        { value: 'chop', name: t`chopping` },
        { value: 'push', name: t`pushing`, disabled: !saw.sliding },
      ]}
      onChoose={(motion) => onChange({ motion })}
      wrong={wrong('motion')}
    />
  );
  const exitHeld = settled?.exit_support && faces && (
    <ChoiceWord
      label={wordOf(faces.exit)}
      value={settled.exit_support}
      choices={supportChoices(supports?.exit)}
      onChoose={(exit_support) => onChange({ exit_support })}
    />
  );
  const otherHeld = settled?.other_support && faces?.other && (
    <ChoiceWord
      label={wordOf(faces.other)}
      value={settled.other_support}
      choices={supportChoices(supports?.other)}
      onChoose={(other_support) => onChange({ other_support })}
    />
  );
  const exitName = wordOf(faces?.exit);
  const otherName = wordOf(faces?.other);
  return (
    <Box component="section" aria-label={t`The cut`} sx={{ minWidth: 0 }}>
      <Typography
        component="p"
        sx={{
          fontSize: { xs: 23, sm: 21 },
          lineHeight: { xs: 2.05, sm: 1.65, md: 1.4 },
          textWrap: 'pretty',
        }}
      >
        <ChoiceWord
          label={t`Cut`}
          value={cut.direction}
          choices={saw.directions.map((d) => ({ value: d, name: directionWords[d] }))}
          onChoose={(direction) => onChange({ direction })}
          wrong={wrong('direction')}
        />{' '}
        <LengthWord
          label={t`Thickness`}
          mm={cut.thickness_mm}
          units={units}
          picks={sizes.t}
          onChoose={(thickness_mm) => onChange({ thickness_mm })}
          wrong={wrong('thickness_mm')}
          problem={says('thickness_mm')}
        />{' '}
        <MaterialWord
          value={cut.material}
          materials={materials}
          onChoose={(material) => onChange({ material })}
          wrong={wrong('material')}
        />
        ,{' '}
        <CountWord
          label={t`Pieces`}
          count={cut.pieces ?? 1}
          most={9999}
          picks={[1, 2, 4, 8, 12, 24, 48]}
          said={(n) => (n === 1 ? t`one piece` : t`${n} pieces`)}
          onChoose={(n) => onChange({ pieces: n > 1 ? n : undefined })}
          wrong={wrong('pieces')}
        />
        ,{' '}
        <Trans>
          {long} long and {wide} wide
        </Trans>
        ,{' '}
        {saw.kind !== 'miter' && (
          <>
            <ChoiceWord
              label={t`Form`}
              value={cut.form ?? 'through'}
              choices={forms}
              onChoose={(form) => onChange({ form: form === 'through' ? undefined : form })}
              wrong={wrong('form')}
            />
            {cut.depth_mm !== undefined && (
              <>
                {' '}
                <Trans>{deep} deep</Trans>
              </>
            )}
            ,{' '}
          </>
        )}
        {cut.direction === 'crosscut' && (
          <>
            <AngleWord
              label={t`Miter`}
              deg={cut.miter_deg ?? 0}
              most={saw.turn_deg}
              picks={angles.filter((a) => a <= saw.turn_deg)}
              square={t`square`}
              turned={t`mitered`}
              onChoose={(miter_deg) => onChange({ miter_deg })}
              wrong={wrong('miter_deg')}
              problem={says('miter_deg')}
            />
            ,{' '}
          </>
        )}
        <AngleWord
          label={t`Bevel`}
          deg={cut.bevel_deg ?? 0}
          most={saw.tilt_deg}
          picks={angles.filter((a) => a <= saw.tilt_deg)}
          square={t`blade upright`}
          turned={t`tilted`}
          onChoose={(bevel_deg) => onChange({ bevel_deg })}
          wrong={wrong('bevel_deg')}
          problem={says('bevel_deg')}
        />
        , <Trans>on the {sawName}</Trans>
        {settled?.motion && settled.motion !== 'along' && (
          <>
            {' '}
            <Trans>by {motion}</Trans>
          </>
        )}
        {saw.kind === 'circular' && (
          <>
            {' '}
            <ChoiceWord
              label={t`Below`}
              value={cut.bed ?? 'air'}
              choices={beds}
              onChoose={(bed) => onChange({ bed })}
            />
          </>
        )}
        ,{' '}
        <ChoiceWord
          label={t`Finish`}
          value={cut.finish}
          choices={finishes}
          onChoose={(finish) => onChange({ finish })}
        >
          {finishWord[cut.finish]}
        </ChoiceWord>
        .
      </Typography>
      <Typography
        component="p"
        sx={{
          fontSize: { xs: 19, sm: 17 },
          minHeight: 27,
          lineHeight: { xs: 2.3, sm: 1.55 },
          color: 'text.secondary',
        }}
      >
        {settled?.exit_support && settled.other_support && faces && (
          <>
            <Trans>
              Teeth exit at the {exitName}, {exitHeld}.
            </Trans>
            {faces.other && (
              <>
                {' '}
                <Trans>
                  The other side is the {otherName}, {otherHeld}.
                </Trans>
              </>
            )}{' '}
            {showFace === 'down' ? t`Show face down.` : t`Show face up.`}{' '}
            <Suspense>
              <StockWords {...{ cut, saw, fence, units, problem, onChange }} />
            </Suspense>
          </>
        )}
      </Typography>
      {problem && (
        <Typography role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 0.5 }}>
          {problem.message}
        </Typography>
      )}
    </Box>
  );
}
