/** What a sheet is laid out by: how dear a change is, how many people, which saws. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { usePace } from '../../api/jobs';
import type { JobKnobs, Saw } from '../../api/types';
import { percent } from '../../measure/format';
import { OnlyBlades } from './OnlyBlades';
import { Segments } from '../../ui/Segments';

type School = 'stay' | 'shop' | 'free' | 'own';

const STAYS = 15; // minutes that a change counts for, for who would rather not

const minutesOf: Record<School, number | undefined> = {
  stay: STAYS,
  shop: undefined,
  free: 0,
  own: undefined,
};

const schoolOf = (change: number | undefined): School =>
  change === undefined ? 'shop' : change === 0 ? 'free' : change === STAYS ? 'stay' : 'own';

/** `12 % slower` */
const paceSaid = (factor: number) =>
  factor >= 1 ? t`${percent(factor - 1)} slower` : t`${percent(1 - factor)} faster`;

interface Props {
  knobs: JobKnobs;
  saws: Saw[];
  onKnobs: (k: JobKnobs) => void;
}

export function Knobs({ knobs, saws, onKnobs }: Props) {
  const pace = usePace().data;
  const without = knobs.without ?? [];
  const set = (part: Partial<JobKnobs>) => onKnobs({ ...knobs, ...part });
  return (
    <Box
      component="section"
      aria-label={t`How it is planned`}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 3,
        rowGap: 1,
        alignItems: 'end',
        '@media print': { display: 'none' },
      }}
    >
      <Knob name={t`Changing blades`}>
        <Segments<School>
          label={t`Changing blades`}
          value={schoolOf(knobs.change_min)}
          choices={[
            { value: 'stay', name: t`seldom` },
            { value: 'shop', name: t`shop setting` },
            { value: 'free', name: t`freely` },
          ]}
          onChoose={(s) => set({ change_min: minutesOf[s] })}
        />
      </Knob>
      <Knob name={t`People at the saws`}>
        <Segments<'1' | '2'>
          label={t`People at the saws`}
          value={knobs.people === 2 ? '2' : '1'}
          choices={[
            { value: '1', name: t`one` },
            { value: '2', name: t`two` },
          ]}
          onChoose={(n) => set({ people: Number(n) })}
        />
      </Knob>
      <Knob name={t`Saws today`}>
        <Box role="group" aria-label={t`Saws today`} sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
          {saws.map((s) => {
            const used = !without.includes(s.id);
            return (
              <ButtonBase
                key={s.id}
                aria-pressed={used}
                onClick={() =>
                  set({ without: used ? [...without, s.id] : without.filter((id) => id !== s.id) })
                }
                sx={{
                  minHeight: { xs: 44, md: 36 },
                  px: 1.25,
                  border: '1.5px solid',
                  borderColor: 'drawing.hair',
                  fontWeight: 600,
                  '&[aria-pressed=true]': { borderColor: 'text.primary', borderWidth: 2.5 },
                  '&[aria-pressed=false]': { textDecoration: 'line-through', color: 'text.secondary' },
                }}
              >
                {s.name}
              </ButtonBase>
            );
          })}
        </Box>
      </Knob>
      {pace && pace.rows > 0 && (
        <Knob
          name={t`Your pace, from ${plural(pace.rows, { one: '# row', other: '# rows' })}: ${paceSaid(pace.factor)}`}
        >
          <Segments<'model' | 'own'>
            label={t`Pace`}
            value={knobs.pace ? 'own' : 'model'}
            choices={[
              { value: 'model', name: t`estimated` },
              { value: 'own', name: t`yours` },
            ]}
            onChoose={(v) => set({ pace: v === 'own' })}
          />
        </Knob>
      )}
      <Knob name={t`Blade changes today`}>
        <OnlyBlades only={knobs.only ?? []} onOnly={(only) => set({ only })} />
      </Knob>
    </Box>
  );
}

function Knob({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box>
      <Box aria-hidden sx={{ fontSize: 14, color: 'text.secondary', mb: 0.25 }}>
        {name}
      </Box>
      {children}
    </Box>
  );
}
