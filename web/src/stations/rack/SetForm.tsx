/** What a dado set is made of: outer pair, chippers and shims, or the ranges of a dial. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { ProblemError } from '../../api/client';
import { useBlade, useDadoSet, useRenewParts, useSetDadoSet } from '../../api/rack';
import type { DadoSet, DadoSetInput, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { formatThin } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { CheckField, Group, NumberField, SelectField } from '../../ui/Fields';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { useAfterReading } from '../../ui/useAfterReading';
import { KnownParts } from '../../ui/KnownParts';
import { Trouble } from '../../ui/Notice';
import { useRecord } from '../../ui/useRecord';
import { useUnsaved } from '../../ui/useUnsaved';

export function SetForm() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const blade = useBlade(id);
  const set = useDadoSet(id, units);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button component={Link} to={`/blades/${id}`} size="small" sx={{ ml: -0.75 }}>
        ‹ {blade.data?.name ?? t`Blades`}
      </Button>
      <Typography variant="h1">{t`The parts of ${blade.data?.name ?? t`a set`}`}</Typography>
      {!set.data && <Coming of={[set, blade]} rows={4} drawing />}
      {set.data && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 6fr) minmax(0, 6fr)' },
            columnGap: 4,
            rowGap: 2,
            mt: 1,
          }}
        >
          <Form key={set.data.version} set={set.data} units={units} />
          <Box sx={{ minWidth: 0 }}>
            <Box component="ul" aria-label={t`Saws`} sx={{ listStyle: 'none', m: 0, p: 0, mb: 1.5 }}>
              {set.data.saws.map((w) => (
                <Box
                  component="li"
                  key={w.saw_name}
                  sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 15.5 }}
                >
                  <Verdict verdict={w.verdict} size={13} />
                  <span>
                    <b>{w.saw_name}</b>: {w.says}.
                  </span>
                </Box>
              ))}
            </Box>
            {set.data.version > 0 && (
              <>
                <KnownParts set={set.data} units={units} />
                <Renew set={set.data} units={units} />
              </>
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}

const begin: DadoSetInput = {
  kind: 'stack',
  left_mm: 3.2,
  right_mm: 3.2,
  wings: 2,
  parts: [
    { thickness_mm: 3.2, count: 2 },
    { thickness_mm: 2.4, count: 1 },
    { thickness_mm: 1.6, count: 1 },
    { thickness_mm: 0.1, count: 4, shim: true },
  ],
};

function Form({ set, units }: { set: DadoSet; units: Units }) {
  const typing = useRecord<DadoSetInput>(
    set.version === 0
      ? begin
      : {
          kind: set.kind,
          left_mm: set.left_mm,
          right_mm: set.right_mm,
          wings: set.wings,
          parts: set.parts,
          ears_mm: set.ears_mm,
          ranges: set.ranges,
          build: set.build,
        },
    'DadoSetInput',
  );
  const { input } = typing;
  const change = useSetDadoSet(units);
  const put = typing.set;
  const refused = change.error instanceof ProblemError ? change.error : undefined;
  const problem = (field: string) =>
    typing.problem(field as keyof DadoSetInput) ?? (refused?.field === field ? refused.message : undefined);
  const length = (key: 'left_mm' | 'right_mm' | 'ears_mm', label: string, hint?: string) => (
    <LengthField
      label={label}
      mm={input[key]}
      units={units}
      live
      onLength={(mm) => put({ [key]: mm })}
      onClear={() => put({ [key]: undefined })}
      problem={problem(key)}
      hint={hint}
    />
  );
  const unsaved = useUnsaved(typing.changed);
  const save = useAfterReading(() =>
    change.mutate({ id: set.blade_id, version: set.version, body: input }, { onSuccess: typing.kept }),
  );
  const parts = input.parts ?? [];
  const setPart = (i: number, part: Partial<(typeof parts)[number]>) =>
    put({ parts: (typing.now().parts ?? []).map((p, k) => (k === i ? { ...p, ...part } : p)) });
  const ranges = input.ranges ?? [];
  const setRange = (i: number, part: Partial<(typeof ranges)[number]>) =>
    put({ ranges: (typing.now().ranges ?? []).map((r, k) => (k === i ? { ...r, ...part } : r)) });
  return (
    <Box sx={{ minWidth: 0 }}>
      {unsaved.question}
      <Group name={t`Type`}>
        <SelectField
          label={t`Kind`}
          value={input.kind}
          choices={[
            ['stack', t`stacked`],
            ['dial', t`by a dial`],
          ]}
          onChoose={(kind) =>
            put({
              kind,
              ranges:
                kind === 'dial' && ranges.length === 0
                  ? [{ cutters: 2, least_mm: 6.4, most_mm: 12.7, start_mm: 6.4, turn_mm: 1 }]
                  : ranges,
            })
          }
        />
        {length('ears_mm', t`Ears in the corners`, t`how much deeper the outer teeth cut`)}
        {input.kind === 'stack' && length('left_mm', t`Left outer, at the tips`)}
        {input.kind === 'stack' && length('right_mm', t`Right outer, at the tips`)}
        {input.kind === 'stack' && (
          <NumberField
            label={t`Teeth of a chipper`}
            value={input.wings}
            onNumber={(v) => put({ wings: v === undefined ? undefined : Math.round(v) })}
            problem={problem('wings')}
          />
        )}
        {input.kind === 'dial' && (
          <SelectField
            label={t`Made for a nut on the`}
            value={input.build ?? 'unknown'}
            choices={[
              ['unknown', t`unknown`],
              ['left', t`left`],
              ['right', t`right`],
            ]}
            onChoose={(build) => put({ build })}
          />
        )}
      </Group>
      {input.kind === 'stack' && (
        <Box
          component="fieldset"
          sx={{ border: 0, borderTop: '1px solid', borderColor: 'divider', p: 0, m: 0 }}
        >
          <Typography component="legend" variant="h3" sx={{ pr: 1.5 }}>
            {t`Your chippers and shims`}
          </Typography>
          {parts.map((p, i) => (
            <Box
              key={i}
              role="group"
              aria-label={t`Part ${i + 1}`}
              sx={{
                display: 'grid',
                gridTemplateColumns: 'minmax(0,1fr) 76px auto 44px',
                gap: 1,
                alignItems: 'start',
                py: 0.75,
              }}
            >
              <LengthField
                label={t`Thickness`}
                mm={p.thickness_mm}
                units={units}
                live
                onLength={(mm) => setPart(i, { thickness_mm: mm })}
                problem={problem(`parts.${i}.thickness_mm`)}
              />
              <NumberField
                label={t`Count`}
                value={p.count}
                onNumber={(v) => setPart(i, { count: Math.round(v ?? 0) })}
                problem={problem(`parts.${i}.count`)}
              />
              <CheckField label={t`Shim`} value={p.shim ?? false} onCheck={(shim) => setPart(i, { shim })} />
              <IconButton
                aria-label={t`Remove part ${i + 1} from the record`}
                onClick={() => put({ parts: parts.filter((_, k) => k !== i) })}
              >
                ×
              </IconButton>
            </Box>
          ))}
          <Button size="small" onClick={() => put({ parts: [...parts, { thickness_mm: 1.6, count: 1 }] })}>
            {t`Another chipper`}
          </Button>
          <Button
            size="small"
            onClick={() => put({ parts: [...parts, { thickness_mm: 0.2, count: 1, shim: true }] })}
          >
            {t`Another shim`}
          </Button>
        </Box>
      )}
      {input.kind === 'dial' &&
        ranges.map((r, i) => (
          <Group key={i} name={t`With ${r.cutters} cutters`}>
            {(
              [
                ['least_mm', t`From`],
                ['most_mm', t`Up to`],
                ['start_mm', t`Width at dial 0`],
                ['turn_mm', t`One turn adds`],
              ] as const
            ).map(([key, label]) => (
              <LengthField
                key={key}
                label={label}
                mm={r[key]}
                units={units}
                live
                onLength={(mm) => setRange(i, { [key]: mm })}
                problem={problem(`ranges.${i}.${key}`)}
              />
            ))}
          </Group>
        ))}
      {input.kind === 'dial' && ranges.length === 1 && (
        <Button
          size="small"
          onClick={() =>
            put({
              ranges: [
                ...ranges,
                { cutters: 3, least_mm: 12.7, most_mm: 20.6, start_mm: 12.7, turn_mm: ranges[0]!.turn_mm },
              ],
            })
          }
        >
          {t`A range with the center blade`}
        </Button>
      )}
      {change.error && <Trouble sx={{ my: 1 }}>{change.error.message}</Trouble>}
      <Box sx={{ mt: 1.5 }}>
        <Button variant="contained" disabled={change.isPending} onClick={save}>{t`Save`}</Button>
        {change.isSuccess && <Box component="span" role="status" sx={{ ml: 1.5 }}>{t`Saved.`}</Box>}
      </Box>
    </Box>
  );
}

/** Parts that are no longer what the grooves taught. */
function Renew({ set, units }: { set: DadoSet; units: Units }) {
  const renew = useRenewParts(units);
  const key = useRef(crypto.randomUUID());
  const [which, setWhich] = useState<number[]>([]);
  const [why, setWhy] = useState<'sharpened' | 'replaced' | 'worn'>('replaced');
  const dial = set.kind === 'dial';
  const names = dial
    ? [t`the whole set`]
    : [
        t`outer pair`,
        ...(set.parts ?? []).map(
          (p) => `${p.shim ? t`shim` : t`chipper`} ${formatThin(p.thickness_mm, units)}`,
        ),
      ];
  return (
    <Box component="section" aria-labelledby="renew" sx={{ mt: 2 }}>
      <Typography id="renew" variant="h3" component="h2">{t`Changed parts`}</Typography>
      <Box sx={{ fontSize: 15, mb: 0.5 }}>
        {t`This resets what test grooves showed about these parts. When a whole set comes back sharpened, record it under Care, which resets it too. Shims keep their figures.`}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap' }}>
        {names.map((name, i) => (
          <CheckField
            key={name}
            label={name}
            value={which.includes(i)}
            onCheck={(on) => setWhich((now) => (on ? [...now, i] : now.filter((k) => k !== i)))}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', maxWidth: 380, mt: 1 }}>
        <SelectField
          label={t`These parts are`}
          value={why}
          choices={[
            ['sharpened', t`sharpened`],
            ['replaced', t`replaced`],
            ['worn', t`worn`],
          ]}
          onChoose={setWhy}
        />
        <Button
          variant="outlined"
          sx={{ flex: 'none' }}
          disabled={which.length === 0 || renew.isPending}
          onClick={() =>
            renew.mutate(
              {
                id: set.blade_id,
                key: key.current,
                body: { why, outer: which.includes(0), parts: which.filter((i) => i > 0).map((i) => i - 1) },
              },
              {
                onSuccess: () => {
                  key.current = crypto.randomUUID();
                  setWhich([]);
                },
              },
            )
          }
        >
          {t`Log it`}
        </Button>
      </Box>
      {renew.error && <Trouble sx={{ my: 1 }}>{renew.error.message}</Trouble>}
    </Box>
  );
}
