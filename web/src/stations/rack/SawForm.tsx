/** A saw, by what can be read off it and its manual. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { ProblemError } from '../../api/client';
import { useAddSaw, useChangeSaw, useRetireSaw, useSaw, useSawDraft } from '../../api/rack';
import type { Saw, SawInput } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { SawFace } from '../../drawings/SawFace';
import { sawWords } from '../../drawings/recordWords';
import { trim } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { CheckField, Group, LineField, NumberField, SelectField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { pick } from '../../ui/pick';
import { useOpened } from '../../ui/useOpened';
import { RecordForm } from './RecordForm';
import { Retire } from './Retire';
import { typedOf, useRecord } from '../../ui/useRecord';
import { useUnsaved } from '../../ui/useUnsaved';

const typed = typedOf<SawInput>('SawInput');

const fresh: SawInput = {
  name: '',
  kind: 'table',
  diameter_mm: 254,
  arbor_mm: 15.875,
  rpm: 4000,
  motor_w: 1300,
  reach_mm: 79,
};

type Tolerances = NonNullable<SawInput['tolerances']>;

export const NewSaw = () => <Form start={fresh} title={t`A new saw`} />;

export function EditSaw() {
  const { id = '' } = useParams();
  const saw = useSaw(id);
  const { at, now, reopen } = useOpened(saw.data);
  if (!at) return <Arriving title={t`A saw`} of={[saw]} rows={4} drawing />;
  return (
    <Form key={at.version} start={pick(at, typed)} title={at.name} saw={at} now={now} onReopen={reopen} />
  );
}

interface FormProps {
  start: SawInput;
  title: string;
  saw?: Saw;
  now?: Saw;
  onReopen?: (s: Saw) => void;
}

type LengthKey = {
  [K in keyof SawInput]-?: NonNullable<SawInput[K]> extends number
    ? K extends `${string}_mm`
      ? K
      : never
    : never;
}[keyof SawInput];

function Form({ start, title, saw, now, onReopen }: FormProps) {
  const { units } = usePreferences();
  const go = useNavigate();
  const typing = useRecord<SawInput>(start, 'SawInput');
  const { input, set } = typing;
  const withNow = (part: (now: SawInput) => Partial<SawInput>) => set(part(typing.now()));
  const [version, setVersion] = useState(saw?.version ?? 0);
  const [key] = useState(() => crypto.randomUUID());
  const draft = useSawDraft({ ...input, name: input.name || 'unnamed' });
  const add = useAddSaw();
  const change = useChangeSaw();
  const retire = useRetireSaw();
  const failed = add.error ?? change.error ?? retire.error;
  const stale = failed instanceof ProblemError && failed.status === 412;
  const conflict = (stale || (now && now.version !== version)) && !change.isPending && !change.isSuccess;
  const refused = draft.error instanceof ProblemError ? draft.error : undefined;
  const problem = (field: string) =>
    typing.problem(field as keyof SawInput) ?? (refused?.field === field ? refused.message : undefined);
  const length = (field: LengthKey, label: string, optional: boolean | string = false) => (
    <LengthField
      label={label}
      mm={input[field]}
      units={units}
      live
      onLength={(mm) => set({ [field]: mm })}
      onClear={optional ? () => set({ [field]: undefined }) : undefined}
      problem={problem(field)}
      hint={optional === true ? t`if there is one` : optional || undefined}
    />
  );
  const number = (
    field: 'rpm' | 'motor_w' | 'volts' | 'breaker_a' | 'tilt_deg' | 'turn_deg' | 'scoring_rpm',
    label: string,
    unit: string,
    hint?: string,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      value={input[field]}
      onNumber={(v) => set({ [field]: v ?? 0 })}
      problem={problem(field)}
      hint={hint}
    />
  );
  const brake = (field: keyof NonNullable<SawInput['brake']>, label: string) =>
    input.brake && (
      <LengthField
        label={label}
        mm={input.brake[field]}
        units={units}
        live
        onLength={(mm) => withNow((now) => ({ brake: now.brake && { ...now.brake, [field]: mm } }))}
        problem={problem(`brake.${field}`)}
      />
    );
  const tolerance = (field: keyof Tolerances, label: string) =>
    input.tolerances && (
      <NumberField
        label={field.endsWith('_mm') ? t`${label}, mm` : label}
        value={input.tolerances[field]}
        onNumber={(v) =>
          withNow((now) => ({ tolerances: now.tolerances && { ...now.tolerances, [field]: v ?? 0 } }))
        }
        problem={problem(`tolerances.${field}`)}
      />
    );
  const unsaved = useUnsaved(typing.changed);
  const save = () => {
    const done = {
      onSuccess: () => {
        unsaved.saved();
        void go('/saws');
      },
    };
    if (saw) change.mutate({ id: saw.id, version, body: input }, done);
    else add.mutate({ key, body: input }, done);
  };
  return (
    <RecordForm
      what="saw"
      title={title}
      back={{ to: '/saws', name: t`Saws` }}
      mine={input}
      theirs={conflict ? (now ? pick(now, typed) : {}) : undefined}
      units={units}
      onTheirs={() => now && onReopen?.(now)}
      onMine={() => {
        if (now) setVersion(now.version);
        change.reset();
      }}
      failed={stale ? undefined : failed?.message}
      refused={refused?.message}
      preview={
        <Box sx={{ opacity: refused ? 0.45 : 1 }}>
          {draft.data && (
            <>
              <SawFace saw={draft.data} units={units} />
              <Box sx={{ fontSize: 15, mt: 1 }}>
                <b>{t`Power at the blade: ${trim(draft.data.power_limit_w, 0)} W.`}</b>{' '}
                {draft.data.power_limit_w < draft.data.motor_w
                  ? t`The circuit carries less than the motor can draw.`
                  : t`That is the full power of the motor.`}
              </Box>
            </>
          )}
        </Box>
      }
      previewWidth={260}
      save={saw ? t`Save` : t`Add saw`}
      saving={add.isPending || change.isPending}
      onSave={save}
      more={
        saw && (
          <Retire
            what="saw"
            name={saw.name}
            reasons={['worn-out', 'sold', 'lost', 'other']}
            onRetire={(body) => retire.mutate({ id: saw.id, body }, { onSuccess: () => void go('/saws') })}
          />
        )
      }
    >
      {unsaved.question}
      <Group name={t`Type`}>
        <LineField label={t`Name`} value={input.name} most={60} onText={(name) => set({ name })} />
        <SelectField
          label={t`Kind`}
          value={input.kind}
          choices={Object.entries(sawWords) as [SawInput['kind'], string][]}
          onChoose={(kind) => set({ kind, sliding: kind === 'miter' ? input.sliding : undefined })}
        />
        {length('diameter_mm', t`Blade diameter`)}
        {length('arbor_mm', t`Arbor`)}
        {length('least_mm', t`Smallest blade`, true)}
        {input.kind === 'miter' && (
          <CheckField
            label={t`It slides`}
            value={input.sliding ?? false}
            onCheck={(sliding) => set({ sliding })}
          />
        )}
      </Group>
      <Group name={t`Drive`} hint={t`Leave volts and breaker at 0 on a battery.`}>
        {number('rpm', t`Speed`, 'rpm')}
        {number('motor_w', t`Motor, at the shaft`, 'W')}
        {number('volts', t`Circuit`, 'V')}
        {number('breaker_a', t`Breaker`, 'A')}
      </Group>
      <Group name={t`Reach`}>
        {length('reach_mm', t`Upright`)}
        {length('reach45_mm', t`Tilted to 45°`, true)}
        {number('tilt_deg', t`Tilts to`, t`degrees`, t`0 for the usual 45`)}
        {input.kind === 'table' && (
          <SelectField
            label={t`The top of the blade tilts`}
            value={input.tilt_side ?? 'unknown'}
            choices={[
              ['unknown', t`unknown`],
              ['left', t`to the left`],
              ['right', t`to the right`],
            ]}
            onChoose={(tilt_side) => set({ tilt_side })}
          />
        )}
        {input.kind === 'table' && length('fence_reach_mm', t`Fence reaches`, true)}
        {input.kind === 'circular' && length('shoe_mm', t`Width of the shoe`, true)}
        {number('turn_deg', t`Turns to`, t`degrees`, t`0 for the usual 45`)}
        {input.kind === 'miter' && length('chop_width_mm', t`Longest chop`, true)}
        {input.kind === 'miter' && input.sliding && length('crosscut_mm', t`Slide crosses`, true)}
        {input.kind === 'miter' && length('below_table_mm', t`Goes below the table`, true)}
      </Group>
      {input.kind === 'table' && (
        <Group
          name={t`Sliding carriage and scoring blade`}
          hint={t`Leave the sizes at 0 if the saw doesn’t have them.`}
        >
          {length('carriage_mm', t`Carriage travel`, true)}
          {!!input.carriage_mm && (
            <CheckField
              label={t`The carriage has clamps`}
              value={input.carriage_clamps ?? false}
              onCheck={(carriage_clamps) => set({ carriage_clamps })}
            />
          )}
          {length('scoring_diameter_mm', t`Scoring blade`, true)}
          {!!input.scoring_diameter_mm && (
            <>
              {length('scoring_kerf_mm', t`Scoring kerf`)}
              {number('scoring_rpm', t`Scoring speed`, 'rpm')}
              <CheckField
                label={t`The manual allows scoring in tilted cuts`}
                value={input.scoring_tilts ?? false}
                onCheck={(scoring_tilts) => set({ scoring_tilts })}
              />
            </>
          )}
        </Group>
      )}
      <Group name={t`Guards and limits`}>
        {input.kind !== 'miter' && length('knife_mm', t`Riving knife`, true)}
        <LengthField
          label={t`Bushing to`}
          mm={input.bushings_mm?.[0]}
          units={units}
          live
          onLength={(mm) => withNow((now) => ({ bushings_mm: [mm, ...(now.bushings_mm ?? []).slice(1)] }))}
          onClear={() => set({ bushings_mm: [] })}
          problem={problem('bushings_mm') ?? problem('bushings_mm.0')}
          hint={t`a larger bore it can take`}
        />
        <CheckField
          label={t`Dado stacks allowed`}
          value={input.dado_sets ?? false}
          onCheck={(dado_sets) => set({ dado_sets })}
        />
        {input.dado_sets && (
          <>
            {length('arbor_length_mm', t`Arbor, flange to end`, t`if it was measured`)}
            {length('washer_mm', t`Outer washer`, t`if it was measured`)}
            {length('nut_mm', t`Nut`, t`if it was measured`)}
            <SelectField
              label={t`The nut is`}
              value={input.nut_side ?? 'unknown'}
              choices={[
                ['unknown', t`unknown`],
                ['left', t`left of the blade`],
                ['right', t`right of the blade`],
              ]}
              onChoose={(nut_side) => set({ nut_side })}
            />
            <CheckField
              label={t`Washer can be left off`}
              value={input.washer_off ?? false}
              onCheck={(washer_off) => set({ washer_off })}
            />
          </>
        )}
        <CheckField
          label={t`Wheels allowed`}
          value={input.wheels ?? false}
          onCheck={(wheels) => set({ wheels })}
        />
        <CheckField
          label={t`Made for steel`}
          value={input.steel ?? false}
          onCheck={(steel) => set({ steel })}
        />
        <CheckField
          label={t`Has a blade brake`}
          value={input.brake !== undefined}
          onCheck={(on) =>
            set({
              brake: on
                ? {
                    min_kerf_mm: 2.3,
                    max_kerf_mm: 4.8,
                    min_diameter_mm: input.diameter_mm - 4,
                    max_diameter_mm: input.diameter_mm + 2,
                  }
                : undefined,
            })
          }
        />
        {brake('min_kerf_mm', 'Brake: least kerf')}
        {brake('max_kerf_mm', 'Brake: most kerf')}
        {brake('min_diameter_mm', 'Brake: least diameter')}
        {brake('max_diameter_mm', 'Brake: most diameter')}
      </Group>
      <Group name={t`Mounting and alignment`}>
        <SelectField
          label={t`Thread of the nut`}
          value={input.thread ?? 'unknown'}
          choices={[
            ['unknown', t`unknown`],
            ['right', t`right-hand`],
            ['left', t`left-hand`],
          ]}
          onChoose={(thread) => set({ thread })}
        />
        <CheckField
          label={t`Arbor lock`}
          value={input.arbor_lock ?? false}
          onCheck={(arbor_lock) => set({ arbor_lock })}
        />
        <CheckField
          label={t`Diamond knock-out`}
          value={input.knockout ?? false}
          onCheck={(knockout) => set({ knockout })}
        />
        {input.kind === 'table' && length('wheel_lead_mm', t`One turn of the wheel`, true)}
        {input.kind === 'table' && length('fence_lead_mm', t`Fence screw, per turn`, true)}
        {input.kind === 'table' && length('to_bolt_mm', t`Pivot to bolt`, true)}
        <CheckField
          label={t`Your tolerances`}
          value={input.tolerances !== undefined}
          onCheck={(on) => set({ tolerances: on ? draft.data?.held_to : undefined })}
        />
        {input.tolerances && (
          <>
            {tolerance('heel_aim_mm', t`Toe-in or toe-out: target`)}
            {tolerance('heel_act_mm', t`Toe-in or toe-out: correct above`)}
            {tolerance('fence_open_mm', t`Fence toe-out, at most`)}
            {tolerance('runout_aim_mm', t`Run-out: target`)}
            {tolerance('runout_act_mm', t`Run-out: correct above`)}
            {tolerance('tilt_deg', t`Tilt, degrees`)}
            {tolerance('gauge_deg', t`Miter gauge, degrees`)}
          </>
        )}
      </Group>
      <Group name={t`Notes`}>
        <Box sx={{ gridColumn: '1 / -1' }}>
          <LineField
            label={t`Notes`}
            value={input.note ?? ''}
            rows={2}
            most={2000}
            onText={(note) => set({ note })}
          />
        </Box>
      </Group>
    </RecordForm>
  );
}
