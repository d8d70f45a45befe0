/** A new list: typed, pasted, out of a file, or as an earlier job had it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useAddJob, useCopyOf, useJobList, useJobs, usePlanJob } from '../../api/jobs';
import type { JobKnobs } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { LineField, SelectField } from '../../ui/Fields';
import { FileButton } from '../../ui/FileButton';
import { Trouble } from '../../ui/Notice';
import { useUnsaved } from '../../ui/useUnsaved';
import { Lines, Typer } from '../../cut/JobLines';
import { rowOf, useSettled } from '../../cut/typedRows';

const usual: JobKnobs = { people: 1 };

export function NewJob() {
  const { units } = usePreferences();
  const go = useNavigate();
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const settled = useSettled(text);
  const list = useJobList(settled, units);
  const lines = settled.trim() === '' ? [] : (list.data ?? []);
  const earlier = useJobs().data ?? [];
  const copyOf = useCopyOf();
  const add = useAddJob();
  const plan = usePlanJob();
  const sent = useRef<{ content: string; key: string }>(undefined);
  const unsaved = useUnsaved(text.trim() !== '');
  const bad = lines.some((l) => l.faults.length > 0);
  const ready = name.trim() !== '' && lines.length > 0 && !bad && settled === text && !list.isPlaceholderData;
  // Sent again it is the same list to the letter, under the same key, and kept once.
  const rows = useMemo(() => (list.data ?? []).map(rowOf), [list.data]);
  const keep = () => {
    const body = { name: name.trim(), rows, knobs: usual, units };
    const content = JSON.stringify(body);
    if (sent.current?.content !== content) sent.current = { content, key: crypto.randomUUID() };
    add.mutate(
      { key: sent.current.key, body },
      {
        onSuccess: (job) => {
          unsaved.saved();
          // Where it cannot be planned the job says why itself.
          plan.mutate({ job, knobs: usual, units }, { onSettled: () => void go(`/jobs/${job.id}`) });
        },
      },
    );
  };
  const failed = add.error ?? list.error;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button component={Link} to="/jobs" size="small" sx={{ ml: -0.75 }}>{t`‹ Jobs`}</Button>
      <Typography variant="h1" sx={{ mb: 1.5 }}>{t`New job`}</Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0,1fr) minmax(0,1fr)' },
          gap: 3,
          alignItems: 'start',
        }}
      >
        <Box>
          <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { sm: '1fr 1fr' }, mb: 1.5 }}>
            <LineField label={t`Name of the job`} value={name} most={80} onText={setName} />
            {earlier.length > 0 && (
              <SelectField
                label={t`Start from an earlier job`}
                value=""
                choices={earlier.map((j) => [j.id, j.name] as const)}
                onChoose={(id) => void copyOf(id).then(setText)}
              />
            )}
          </Box>
          <Typer text={text} onText={setText} />
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1.5, alignItems: 'center' }}>
            <Button
              variant="contained"
              disabled={!ready || add.isPending || plan.isPending}
              onClick={keep}
              sx={{ minHeight: 52, px: 3 }}
            >
              {t`Save and plan`}
            </Button>
            <FileButton
              label={t`List of cuts`}
              accept=".csv,.json,.txt,text/csv,application/json,text/plain"
              variant="outlined"
              onFile={(f) => void f.text().then(setText)}
            >
              {t`From a file`}
            </FileButton>
          </Box>
          {failed && <Trouble sx={{ mt: 1.5 }}>{failed.message}</Trouble>}
        </Box>
        {lines.length > 0 ? <Lines lines={lines} units={units} /> : <HowTo />}
      </Box>
      {unsaved.question}
    </Box>
  );
}

function HowTo() {
  const rows: [string, string][] = [
    [t`24 battens, 38 × 64 white pine, 1,200 long`, t`count, part, thickness × width, length`],
    [t`8 posts, 900 long`, t`anything left out is as in the row above`],
    [t`rip, crosscut or sheet; rough, hidden, show or fine`, t`cut and finish`],
    [t`6 housings, groove 7 deep; miter 45; bevel 30`, t`joints and angles`],
    [t`Platforms:`, t`heading for the rows below`],
    [t`qty, part, wood, t, w, l`, t`or a table with these headings`],
  ];
  return (
    <Box component="dl" sx={{ m: 0 }}>
      {rows.map(([say, means]) => (
        <Box key={say} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1 }}>
          <Box component="dt" sx={{ fontSize: 18, fontWeight: 600 }}>
            {say}
          </Box>
          <Box component="dd" sx={{ m: 0, color: 'text.secondary' }}>
            {means}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
