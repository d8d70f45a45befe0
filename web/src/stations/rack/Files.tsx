/** The rack as a file: out in two open formats, and in with a look at every row before anything is saved. */
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { api } from '../../api/place';
import { useImport, usePreviewImport } from '../../api/rack';
import { FileButton } from '../../ui/FileButton';
import type { ImportPreview, RackFile } from '../../api/types';
import { Notice, Trouble } from '../../ui/Notice';

const words = { add: t`add`, change: t`change`, same: t`same`, refuse: t`rejected` } as const;
const marks = { add: '+', change: '~', same: '=', refuse: '×' } as const;

export function Files() {
  const { search } = useLocation();
  const [file, setFile] = useState<RackFile & { name: string }>();
  const preview = usePreviewImport();
  const save = useImport();
  const take = async (f: File) => {
    save.reset();
    const text = await f.text();
    const body: RackFile = { format: /\.csv$/i.test(f.name) ? 'csv' : 'json', text };
    setFile({ ...body, name: f.name });
    preview.mutate(body);
  };
  const p = preview.data;
  const failed = preview.error ?? save.error;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1000 }}>
      <Button component={Link} to={`/blades${search}`} size="small" sx={{ ml: -0.75 }}>{t`‹ Blades`}</Button>
      <Typography variant="h1">{t`Import and export`}</Typography>
      <Box component="section" aria-labelledby="out" sx={{ mt: 2 }}>
        <Typography id="out" variant="h2">{t`Export`}</Typography>
        <Typography sx={{ mb: 1 }}>
          <Trans>
            JSON has saws and blades and follows <a href="/api/v1/schemas/rack.json">a published schema</a>.
            CSV has the blades, for a spreadsheet.
          </Trans>
        </Typography>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button
            variant="outlined"
            component="a"
            href={`${api}/rack-exports?format=json`}
            download="rack.json"
          >
            {t`rack.json`}
          </Button>
          <Button
            variant="outlined"
            component="a"
            href={`${api}/rack-exports?format=csv`}
            download="blades.csv"
          >
            {t`blades.csv`}
          </Button>
        </Box>
      </Box>
      <Box component="section" aria-labelledby="in" sx={{ mt: 3 }}>
        <Typography id="in" variant="h2">{t`Import`}</Typography>
        <Typography sx={{ mb: 1 }}>
          {t`Rows are matched by id, then by name. Write sizes in CSV as you like: 3.2, 1/8", 5/8.`}
        </Typography>
        <FileButton
          variant="contained"
          label={t`File of saws and blades`}
          accept=".json,.csv,application/json,text/csv"
          onFile={(f) => void take(f)}
        >
          {t`Choose a file`}
        </FileButton>
        {failed && <Trouble sx={{ mt: 2 }}>{failed.message}</Trouble>}
        {save.data && (
          <Notice kind="done" sx={{ mt: 2 }}>
            {t`Saved: ${save.data.add} added, ${save.data.change} changed.`}
          </Notice>
        )}
        {p && file && !save.data && (
          <Rows
            preview={p}
            name={file.name}
            saving={save.isPending}
            onSave={() =>
              save.mutate(
                { format: file.format, text: file.text, digest: p.digest },
                // Most often the rack has changed: what is shown must be what the next Save does.
                { onError: () => preview.mutate({ format: file.format, text: file.text }) },
              )
            }
          />
        )}
      </Box>
    </Box>
  );
}

function Rows({
  preview: p,
  name,
  saving,
  onSave,
}: {
  preview: ImportPreview;
  name: string;
  saving: boolean;
  onSave: () => void;
}) {
  const [all, setAll] = useState(false);
  const telling = p.rows.filter((r) => all || r.action !== 'same');
  const some = p.add + p.change;
  return (
    <Box sx={{ mt: 2 }}>
      <div role="status">
        <Typography variant="h3">
          {t`${name}: ${p.add} to add, ${p.change} to change, ${p.same} the same, ${p.refuse} rejected`}
        </Typography>
      </div>
      <Box sx={{ display: 'flex', gap: 1, my: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button variant="contained" disabled={some === 0 || saving} onClick={onSave}>
          {some === 0 ? t`Nothing to save` : plural(some, { one: 'Save # row', other: 'Save # rows' })}
        </Button>
        {p.refuse > 0 && some > 0 && <span>{t`Rejected rows are skipped.`}</span>}
        {p.same > 0 && (
          <Button size="small" onClick={() => setAll(!all)}>
            {all ? t`Hide unchanged rows` : t`Show unchanged rows`}
          </Button>
        )}
      </Box>
      <Box component="ol" aria-label={t`Rows of the file`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {telling.map((r) => (
          <Box
            component="li"
            key={`${r.what}${r.row}`}
            sx={{
              display: 'grid',
              gridTemplateColumns: '86px minmax(0,1fr)',
              columnGap: 2,
              py: 0.75,
              borderTop: '1px solid',
              borderColor: 'divider',
              contentVisibility: 'auto',
              containIntrinsicSize: 'auto 40px',
            }}
          >
            <Box sx={{ fontWeight: 650, color: r.action === 'refuse' ? 'error.main' : 'text.primary' }}>
              <span aria-hidden>{marks[r.action]} </span>
              {words[r.action]}
            </Box>
            <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
              <b>{r.name || t`without a name`}</b>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {r.what} {r.row}
              </Box>
              {r.changes.map((c) => (
                <Box key={c.field} sx={{ fontSize: 15 }}>
                  {c.field}: {c.from || 'nothing'} → <b>{c.to || 'nothing'}</b>
                </Box>
              ))}
              {r.problems.map((x) => (
                <Box key={x.field + x.detail} sx={{ fontSize: 15, color: 'error.main' }}>
                  {x.field && `${x.field}: `}
                  {x.detail}
                </Box>
              ))}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
