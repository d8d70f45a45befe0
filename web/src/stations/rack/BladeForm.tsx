/** A blade's numbers, typed beside the drawing that they make. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { ProblemError } from '../../api/client';
import { useAddBlade, useBlade, useBladeDraft, useChangeBlade } from '../../api/rack';
import type { Blade, BladeInput, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { BladeFace } from '../../drawings/BladeFace';
import { EndView } from '../../drawings/EndView';
import { TeethStrip } from '../../drawings/TeethStrip';
import { grindWords, makeWords } from '../../drawings/words';
import { carbideWords, coatingWords, gulletWords, keptForWords } from '../../drawings/recordWords';
import { formatLength, formatThin } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { CheckField, Group, LineField, NumberField, SelectField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { pick } from '../../ui/pick';
import { useOpened } from '../../ui/useOpened';
import { RecordForm } from './RecordForm';
import { Unmarked } from './Unmarked';
import { typedOf, useRecord } from '../../ui/useRecord';
import { useUnsaved } from '../../ui/useUnsaved';

const fresh: BladeInput = {
  name: '',
  make: 'toothed',
  diameter_mm: 254,
  bore_mm: 15.875,
  kerf_mm: 3.2,
  teeth: 40,
  grind: 'ATB',
  bevel_deg: 15,
  hook_deg: 15,
  kept_for: 'general',
};

// A dado set has a form of its own (SetForm.tsx).
const typed = typedOf<BladeInput>('BladeInput').filter((field) => field !== 'set');

/** A blade as it is typed: a hook that nobody has read is left empty. */
const record = (b: Blade): BladeInput => ({
  ...pick(b, typed),
  hook_deg: b.hook_known ? b.hook_deg : undefined,
});

/** A new blade, a copy of one, or one that was read off a photo. */
export function NewBlade() {
  const { read } = (useLocation().state ?? {}) as { read?: Partial<BladeInput> };
  const [params] = useSearchParams();
  const copied = params.get('copy') ?? '';
  const from = useBlade(copied);
  if (copied && !from.data) return <Arriving title={t`A new blade`} of={[from]} rows={4} drawing />;
  const start = from.data
    ? { ...record(from.data), name: t`${from.data.name} copy`, sharpened_before: 0 }
    : { ...fresh, ...read };
  return <Form start={start} title={from.data ? t`A blade like ${from.data.name}` : t`A new blade`} />;
}

export function EditBlade() {
  const { id = '' } = useParams();
  const blade = useBlade(id);
  const { at, now, reopen } = useOpened(blade.data);
  if (!at) return <Arriving title={t`A blade`} of={[blade]} rows={4} drawing />;
  return <Form key={at.version} start={record(at)} title={at.name} blade={at} now={now} onReopen={reopen} />;
}

interface FormProps {
  start: BladeInput;
  title: string;
  blade?: Blade;
  now?: Blade; // what is there, where it has moved on since
  onReopen?: (b: Blade) => void;
}

function Form({ start, title, blade, now, onReopen }: FormProps) {
  const { units } = usePreferences();
  const go = useNavigate();
  const typing = useRecord<BladeInput>(start, 'BladeInput');
  const { input, set } = typing;
  const [version, setVersion] = useState(blade?.version ?? 0);
  const [key] = useState(() => crypto.randomUUID());
  const draft = useBladeDraft({ ...input, name: input.name || 'unnamed' });
  const add = useAddBlade();
  const change = useChangeBlade();
  const saving = add.isPending || change.isPending;
  const failed = add.error ?? change.error;
  const stale = failed instanceof ProblemError && failed.status === 412;
  const conflict = (stale || (now && now.version !== version)) && !change.isPending && !change.isSuccess;
  const refused = draft.error instanceof ProblemError ? draft.error : undefined;
  const problem = (field: keyof BladeInput) =>
    typing.problem(field) ?? (refused?.field === field ? refused.message : undefined);
  const toothed = input.make !== 'diamond' && input.make !== 'abrasive';
  const bevelled = ['ATB', 'HIATB', 'ATBR', 'ONEWAY'].includes(input.grind ?? '');
  const length = (field: LengthKey, label: string, optional = false) => (
    <LengthField
      label={label}
      mm={input[field]}
      units={units}
      live
      onLength={(mm) => set({ [field]: mm })}
      onClear={optional ? () => set({ [field]: undefined }) : undefined}
      problem={problem(field)}
      hint={optional ? t`if measured` : undefined}
    />
  );
  const unsaved = useUnsaved(typing.changed);
  const save = () => {
    const done = {
      onSuccess: (b: Blade) => {
        unsaved.saved();
        void go(`/blades/${b.id}`);
      },
    };
    if (blade) change.mutate({ id: blade.id, version, body: input }, done);
    else add.mutate({ key, body: input }, done);
  };
  return (
    <RecordForm
      what="blade"
      title={title}
      back={blade ? { to: `/blades/${blade.id}`, name: blade.name } : { to: '/blades', name: t`Blades` }}
      mine={input}
      theirs={conflict ? (now ? record(now) : {}) : undefined}
      units={units}
      onTheirs={() => now && onReopen?.(now)}
      onMine={() => {
        if (now) setVersion(now.version);
        change.reset();
      }}
      failed={stale ? undefined : failed?.message}
      refused={refused?.message}
      preview={<Preview blade={draft.data} units={units} problem={refused} />}
      previewWidth={320}
      save={blade ? t`Save` : t`Add blade`}
      saving={saving}
      onSave={save}
    >
      {unsaved.question}
      <Group name={t`Type`}>
        <LineField
          label={t`Name`}
          value={input.name}
          most={60}
          onText={(name) => set({ name })}
          problem={input.name === '' ? undefined : problem('name')}
          hint={input.name === '' ? t`your name for it` : undefined}
        />
        <SelectField
          label={t`Kind`}
          value={input.make}
          choices={Object.entries(makeWords) as [BladeInput['make'], string][]}
          onChoose={(make) =>
            set(
              make === 'diamond' || make === 'abrasive'
                ? { make, teeth: 0, grind: undefined, hook_deg: undefined, bevel_deg: undefined }
                : { make, teeth: input.teeth || 40, grind: input.grind ?? 'ATB' },
            )
          }
        />
        <SelectField
          label={t`Set aside for`}
          value={input.kept_for}
          choices={Object.entries(keptForWords) as [BladeInput['kept_for'], string][]}
          onChoose={(kept_for) => set({ kept_for })}
        />
        <LineField
          label={t`Location`}
          value={input.hangs ?? ''}
          most={120}
          onText={(hangs) => set({ hangs })}
        />
      </Group>
      <Group name={t`Size`}>
        {length('diameter_mm', t`Diameter`)}
        {length('bore_mm', t`Bore`)}
        {length('kerf_mm', t`Kerf, tip to tip`)}
        {length('plate_mm', t`Plate`, true)}
        <NumberField
          label={t`Speed limit`}
          unit={t`rpm`}
          value={input.max_rpm}
          onNumber={(max_rpm) => set({ max_rpm })}
          problem={problem('max_rpm')}
          hint={t`if printed on the blade`}
        />
      </Group>
      {toothed && (
        <Group name={t`Teeth`}>
          <NumberField
            label={t`Teeth`}
            value={input.teeth}
            onNumber={(teeth) => set({ teeth: Math.round(teeth ?? 0) })}
            problem={problem('teeth')}
          />
          <Box sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' } }}>
            <SelectField
              label={t`Grind`}
              value={input.grind ?? ''}
              choices={Object.entries(grindWords) as [NonNullable<BladeInput['grind']>, string][]}
              onChoose={(grind) => set({ grind })}
              problem={problem('grind')}
            />
          </Box>
          <NumberField
            label={t`Hook`}
            unit={t`degrees`}
            value={input.hook_deg}
            onNumber={(hook_deg) => set({ hook_deg })}
            problem={problem('hook_deg')}
            hint={input.hook_deg === undefined ? t`leave empty if unknown` : undefined}
          />
          {bevelled && (
            <NumberField
              label={t`Top bevel`}
              unit={t`degrees`}
              value={input.bevel_deg}
              onNumber={(bevel_deg) => set({ bevel_deg })}
              problem={problem('bevel_deg')}
            />
          )}
          {input.grind === 'ATBR' && (
            <NumberField
              label={t`Teeth in a group`}
              value={input.group}
              onNumber={(group) => set({ group })}
              problem={problem('group')}
              hint={t`including the raker, usually 5`}
            />
          )}
          {input.grind === 'ATBR' && length('raker_mm', t`Raker lower by`, true)}
          {length('gullet_mm', t`Gullet depth`, true)}
          <NumberField
            label={t`Body slots`}
            value={input.slots}
            onNumber={(slots) => set({ slots })}
            problem={problem('slots')}
          />
          <SelectField
            label={t`Coating`}
            value={input.coating ?? 'none'}
            choices={Object.entries(coatingWords) as [NonNullable<BladeInput['coating']>, string][]}
            onChoose={(coating) => set({ coating })}
          />
          <CheckField
            label={t`Rated for nails`}
            value={input.nails ?? false}
            onCheck={(nails) => set({ nails })}
          />
          <CheckField
            label={t`Made for steel`}
            value={input.ferrous ?? false}
            onCheck={(ferrous) => set({ ferrous })}
          />
          <SelectField
            label={t`Gullets`}
            value={input.gullet_shape ?? 'unknown'}
            choices={Object.entries(gulletWords) as [NonNullable<BladeInput['gullet_shape']>, string][]}
            onChoose={(gullet_shape) => set({ gullet_shape })}
          />
          <SelectField
            label={t`Carbide`}
            value={input.carbide ?? 'unknown'}
            choices={Object.entries(carbideWords) as [NonNullable<BladeInput['carbide']>, string][]}
            onChoose={(carbide) => set({ carbide })}
          />
          <CheckField
            label={t`Shoulder behind each tooth`}
            value={input.shoulder ?? false}
            onCheck={(shoulder) => set({ shoulder })}
          />
          <CheckField
            label={t`Face bevel`}
            value={input.shear ?? false}
            onCheck={(shear) => set({ shear })}
          />
          <CheckField
            label={t`Disposable`}
            value={input.throwaway ?? false}
            onCheck={(throwaway) => set({ throwaway })}
          />
        </Group>
      )}
      {toothed && <Unmarked input={input} units={units} onRead={set} />}
      <Group name={t`Purchase`}>
        <NumberField
          label={t`Price`}
          value={input.price}
          onNumber={(price) => set({ price })}
          problem={problem('price')}
          hint={t`in your currency`}
        />
        {length('carbide_mm', t`Carbide left on a tip`, true)}
        <NumberField
          label={t`Sharpenings so far`}
          value={input.sharpened_before}
          onNumber={(sharpened_before) => set({ sharpened_before })}
          problem={problem('sharpened_before')}
          hint={t`before you started this log`}
        />
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

type LengthKey = Extract<keyof BladeInput, `${string}_mm`>;

/** The blade as the numbers have it; where they cannot be, the last good drawing stands, faded. */
function Preview({
  blade: b,
  units,
  problem,
}: {
  blade: Blade | undefined;
  units: Units;
  problem: ProblemError | undefined;
}) {
  if (!b) return <Box sx={{ minHeight: 320 }} />;
  return (
    <Box
      component="section"
      aria-label={t`Drawn from its measurements`}
      sx={{ position: { md: 'sticky' }, top: 8, opacity: problem ? 0.45 : 1 }}
    >
      <Box sx={{ display: 'grid', placeItems: 'center', '& svg': { maxWidth: '100%', height: 'auto' } }}>
        <BladeFace blade={b} scale={Math.min(1, 300 / (b.diameter_mm + 4))} />
      </Box>
      {b.teeth > 0 && (
        <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1 }}>
          <TeethStrip blade={b} width={130} height={58} />
          <Box sx={{ fontSize: 15, lineHeight: 1.35 }}>
            {t`Tooth spacing ${formatLength(b.pitch_mm, units)}`}
            <br />
            {t`Gullets ${formatLength(b.gullet_depth_mm, units)} deep`}
            {b.side_clearance_mm && (
              <>
                <br />
                {t`Side clearance ${formatThin(b.side_clearance_mm, units)}`}
              </>
            )}
          </Box>
        </Box>
      )}
      {b.teeth > 0 && (
        <Box sx={{ height: 170, mt: 1, display: { xs: 'none', md: 'block' } }}>
          <EndView blade={b} cut={{}} units={units} />
        </Box>
      )}
    </Box>
  );
}
