/** The log as a file, and old records from one. */
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import LinearProgress from '@mui/material/LinearProgress';
import { useRef, useState } from 'react';
import { useLogImport, useLogImports, usePreviewLogImport } from '../../api/log';
import type { LogFilter } from '../../api/types';
import { api } from '../../api/place';
import { FileButton } from '../../ui/FileButton';
import { Notice, Trouble } from '../../ui/Notice';
import { Sending } from '../../ui/Sending';
import { useDates } from '../../ui/useDates';

export function FileOut({ filter }: { filter: LogFilter }) {
  const query = new URLSearchParams();
  for (const [name, v] of Object.entries(filter)) {
    if (name === 'limit' || v === undefined || v === null) continue;
    for (const one of Array.isArray(v) ? v : [v]) query.append(name, String(one));
  }
  return (
    <Box component="section" aria-labelledby="log-out">
      <Typography id="log-out" variant="h2">{t`Export`}</Typography>
      <Box sx={{ mb: 1 }}>
        <Trans>
          Exports what you see here, without deleted entries. JSON follows{' '}
          <a href="/api/v1/schemas/log.json">a published schema</a>.
        </Trans>
      </Box>
      {(['json', 'csv'] as const).map((f) => (
        <Button
          key={f}
          variant="outlined"
          component="a"
          sx={{ mr: 1 }}
          href={`${api}/log-exports?format=${f}&${query}`}
          download={`log.${f}`}
        >
          {t`log.${f}`}
        </Button>
      ))}
    </Box>
  );
}

const marks = { add: '+', same: '=', refuse: '×' } as const;

export function OldRecords() {
  const preview = usePreviewLogImport();
  const save = useLogImport();
  const id = useRef(crypto.randomUUID());
  const [file, setFile] = useState<File>();
  const [share, setShare] = useState(0);
  const under = preview.isPending || save.isPending;
  const p = preview.data;
  const failed = preview.error ?? save.error;
  const take = (f: File) => {
    save.reset();
    id.current = crypto.randomUUID();
    setFile(f);
    setShare(0);
    preview.mutate({ file: f, onShare: setShare });
  };
  return (
    <Box component="section" aria-labelledby="log-in">
      <Typography id="log-in" variant="h2">{t`Import`}</Typography>
      <Box sx={{ mb: 1 }}>
        <Trans>
          Choose a Corte export, or a CSV with the columns <code>at</code>, <code>kind</code>,{' '}
          <code>blade</code>, <code>saw</code>, <code>material</code>, <code>thickness_mm</code>,{' '}
          <code>width_mm</code>, <code>length_mm</code>, <code>pieces</code>. Blades and saws are matched by
          name. Write sizes as you like.
        </Trans>
      </Box>
      <FileButton
        variant="outlined"
        label={t`Import records`}
        accept=".json,.csv,application/json,text/csv"
        disabled={under}
        onFile={take}
      >
        {t`Choose a file`}
      </FileButton>
      {failed && <Trouble sx={{ mt: 1 }}>{failed.message}</Trouble>}
      {under && <Sending name={file?.name ?? ''} share={share} />}
      <Works />
      {p && file && !save.data && (
        <Box sx={{ mt: 1 }}>
          <Box role="status" sx={{ fontWeight: 650 }}>
            {t`${p.add} to add, ${p.same} already there, ${p.refuse} rejected.`}
          </Box>
          <Box
            component="ul"
            aria-label={t`Rejected rows`}
            sx={{ listStyle: 'none', p: 0, m: 0, fontSize: 15, maxHeight: 220, overflow: 'auto' }}
          >
            {p.rows
              .filter((r) => r.does === 'refuse')
              .map((r) => (
                <li key={r.line}>{t`${marks[r.does]} line ${r.line}: ${r.says}`}</li>
              ))}
          </Box>
          <Button
            variant="contained"
            sx={{ mt: 1 }}
            disabled={p.add === 0 || under}
            onClick={() => {
              setShare(0);
              save.mutate({ id: id.current, file, onShare: setShare });
            }}
          >
            {t`Add ${p.add}`}
          </Button>
        </Box>
      )}
    </Box>
  );
}

/** Files that are being worked through, and how the last one ended. */
function Works() {
  const all = useLogImports();
  const { moment } = useDates();
  return all.data
    ?.filter((w, i) => i === 0 || w.state === 'working')
    .map((w) => (
      <Box key={w.id} role="status" sx={{ mt: 1 }}>
        {w.state === 'working' && (
          <>
            {t`Importing ${w.rows} rows: ${w.done} so far. They appear in the log together at the end. You can leave this page.`}
            <LinearProgress
              variant={w.done > 0 ? 'determinate' : 'indeterminate'}
              value={(100 * w.done) / Math.max(w.rows, 1)}
              aria-label={t`Import progress`}
              sx={{ mt: 0.5, height: 8 }}
            />
          </>
        )}
        {w.state === 'done' && (
          <Notice kind="done">
            {t`Import of ${moment(w.at)}: ${plural(w.add, { one: '# row added', other: '# rows added' })}, ${w.same} already there, ${w.refuse} rejected. Blade conditions were updated.`}
          </Notice>
        )}
        {w.state === 'failed' && (
          <Notice kind="trouble">{t`The import of ${moment(w.at)} failed: ${w.says ?? ''}.`}</Notice>
        )}
      </Box>
    ));
}
