/** The log of the shop: everything that happened, filtered, out and in as a file. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useLog, useLogImport, usePreviewLogImport } from '../../api/log';
import { useBlades, useSaws } from '../../api/rack';
import type { LogFilter, LogKind, RackFile } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { Entry } from '../../ui/Entry';
import { SelectField } from '../../ui/Fields';
import { FileButton } from '../../ui/FileButton';
import { FirstThings } from '../../ui/FirstThings';
import { Notice, Trouble } from '../../ui/Notice';

const kinds: [string, string, LogKind[]][] = [
  ['', 'everything', []],
  ['cuts', 'cuts', ['cut']],
  ['care', 'washed, sharpened, sent', ['washed', 'sharpened', 'returned', 'sent']],
  ['said', 'said and seen', ['judged', 'inspected', 'noted']],
  ['mounted', 'put on and taken off', ['mounted', 'dismounted']],
  ['true', 'measured', ['heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance', 'moved']],
  ['compared', 'compared and traced', ['compared', 'traced']],
  ['grooved', 'grooves', ['grooved', 'renewed']],
  ['struck', 'struck out', ['struck']],
];

export function Log() {
  const { units } = usePreferences();
  const saws = useSaws();
  const rack = useBlades();
  const [kind, setKind] = useState('');
  const [saw, setSaw] = useState('');
  const [blade, setBlade] = useState('');
  const chosen = kinds.find(([k]) => k === kind)?.[2] ?? [];
  const filter: LogFilter = {
    kind: chosen.length > 0 ? chosen : undefined,
    saw_id: saw || undefined,
    blade_id: blade || undefined,
    limit: 50,
  };
  const log = useLog(filter);
  const rows = log.data?.pages.flatMap((p) => p.items) ?? [];
  const query = new URLSearchParams();
  chosen.forEach((k) => query.append('kind', k));
  if (saw) query.set('saw_id', saw);
  if (blade) query.set('blade_id', blade);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1100 }}>
      <Typography variant="h1">Log</Typography>
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 220px), 1fr))',
          my: 1.5,
        }}
      >
        <SelectField
          label="Show"
          value={kind}
          choices={kinds.map(([k, name]) => [k, name] as const)}
          onChoose={setKind}
        />
        <SelectField
          label="Saw"
          value={saw}
          choices={[['', 'any'] as const, ...(saws.data ?? []).map((s) => [s.id, s.name] as const)]}
          onChoose={setSaw}
        />
        <SelectField
          label="Blade"
          value={blade}
          choices={[['', 'any'] as const, ...(rack.data ?? []).map((b) => [b.id, b.name] as const)]}
          onChoose={setBlade}
        />
      </Box>
      {log.error && <Trouble>{log.error.message}</Trouble>}
      {log.data &&
        rows.length === 0 &&
        (saws.data?.length === 0 ? (
          <FirstThings missing="saw" />
        ) : (
          <Box sx={{ my: 2 }}>No row is like that. What is cut under Run writes one.</Box>
        ))}
      <Box component="ol" aria-label="Rows" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map((e) => (
          <Entry key={e.id} entry={e} units={units} named strike />
        ))}
      </Box>
      {log.hasNextPage && (
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          disabled={log.isFetchingNextPage}
          onClick={() => void log.fetchNextPage()}
        >
          {log.isFetchingNextPage ? 'Fetching…' : 'Earlier'}
        </Button>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 4, mt: 4 }}>
        <Box component="section" aria-labelledby="log-out">
          <Typography id="log-out" variant="h2">
            Out
          </Typography>
          <Box sx={{ mb: 1 }}>
            What is shown, without what was struck out. JSON keeps to{' '}
            <a href="/api/v1/schemas/log.json">a published schema</a>.
          </Box>
          {(['json', 'csv'] as const).map((f) => (
            <Button
              key={f}
              variant="outlined"
              component="a"
              sx={{ mr: 1 }}
              href={`/api/v1/log-exports?format=${f}&${query}`}
              download={`log.${f}`}
            >
              log.{f}
            </Button>
          ))}
        </Box>
        <OldRecords />
      </Box>
    </Box>
  );
}

const marks = { add: '+', same: '=', refuse: '×' } as const;

function OldRecords() {
  const preview = usePreviewLogImport();
  const save = useLogImport();
  const [file, setFile] = useState<RackFile>();
  const p = preview.data;
  const failed = preview.error ?? save.error;
  const take = async (f: File) => {
    save.reset();
    const body: RackFile = { format: /\.csv$/i.test(f.name) ? 'csv' : 'json', text: await f.text() };
    setFile(body);
    preview.mutate(body);
  };
  return (
    <Box component="section" aria-labelledby="log-in">
      <Typography id="log-in" variant="h2">
        Old records in
      </Typography>
      <Box sx={{ mb: 1 }}>
        A file of Corte’s own, or a list in CSV with the columns <code>at</code>, <code>kind</code>,{' '}
        <code>blade</code>, <code>saw</code>, <code>material</code>, <code>thickness_mm</code>,{' '}
        <code>width_mm</code>, <code>length_mm</code>, <code>pieces</code>. Blades and saws go by their names.
        Sizes may stand as you write them.
      </Box>
      <FileButton
        variant="outlined"
        label="Old records"
        accept=".json,.csv,application/json,text/csv"
        onFile={(f) => void take(f)}
      >
        Choose a file
      </FileButton>
      {failed && <Trouble sx={{ mt: 1 }}>{failed.message}</Trouble>}
      {save.data && (
        <Notice kind="done" sx={{ mt: 1 }}>
          {save.data.add} rows added. Conditions were folded anew.
        </Notice>
      )}
      {p && file && !save.data && (
        <Box sx={{ mt: 1 }}>
          <Box role="status" sx={{ fontWeight: 650 }}>
            {p.add} to add, {p.same} there already, {p.refuse} refused.
          </Box>
          <Box
            component="ul"
            aria-label="Refused rows"
            sx={{ listStyle: 'none', p: 0, m: 0, fontSize: 15, maxHeight: 220, overflow: 'auto' }}
          >
            {p.rows
              .filter((r) => r.does === 'refuse')
              .map((r) => (
                <li key={r.line}>
                  {marks[r.does]} line {r.line}: {r.says}
                </li>
              ))}
          </Box>
          <Button
            variant="contained"
            sx={{ mt: 1 }}
            disabled={p.add === 0 || save.isPending}
            onClick={() => save.mutate(file)}
          >
            Add {p.add}
          </Button>
        </Box>
      )}
    </Box>
  );
}
