/** Rows of the shop that can't be read: what is wrong with each, and the way to repair or remove it. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDamaged, useRemoveRow, useRepair } from '../../api/copies';
import type { DamagedRow } from '../../api/types';
import { Notice, Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { TextBox } from '../../ui/TextBox';

export function Damaged() {
  const rows = useDamaged(true).data ?? [];
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="damaged" sx={{ my: 3 }}>
      <Typography id="damaged" variant="h2">{t`Damaged records`}</Typography>
      <Box sx={{ my: 1, maxWidth: 720 }}>
        {plural(rows.length, {
          one: "# record can't be read. Pages leave it out, and everything else works. Correct the value named below.",
          other:
            "# records can't be read. Pages leave them out, and everything else works. Correct the value named below each.",
        })}
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1.5 }}>
        {rows.map((r) => (
          <Row key={`${r.table} ${r.id} ${r.digest}`} row={r} />
        ))}
      </Box>
    </Box>
  );
}

function Row({ row }: { row: DamagedRow }) {
  const [text, setText] = useState<string>();
  const [unread, setUnread] = useState(false);
  const repair = useRepair();
  const remove = useRemoveRow();
  const failed = repair.error ?? remove.error;
  const whole = JSON.stringify(row.row, null, 2);
  const name = row.name ?? row.id;
  const save = () => {
    let fixed: DamagedRow['row'];
    try {
      fixed = JSON.parse(text ?? whole) as DamagedRow['row'];
      setUnread(false);
    } catch {
      return setUnread(true);
    }
    repair.mutate({ ...row, row: fixed });
  };
  return (
    <Box component="li" aria-label={name} sx={{ border: '1.5px solid', borderColor: 'divider', p: 1.5 }}>
      <Box sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>
        {name}{' '}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
          {row.table}
        </Box>
      </Box>
      <Box sx={{ my: 0.5, overflowWrap: 'anywhere' }}>{row.why}</Box>
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {unread && (
        <Notice
          kind="caution"
          sx={{ my: 1 }}
        >{t`This isn't JSON. Nothing was saved. Check quotes and commas.`}</Notice>
      )}
      {text !== undefined && (
        <TextBox
          label={t`Record as JSON`}
          value={text}
          multiline
          rows={10}
          onChange={(e) => setText(e.target.value)}
        />
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {text === undefined ? (
          row.repairable && (
            <Button variant="outlined" onClick={() => setText(whole)}>{t`Repair record`}</Button>
          )
        ) : (
          <>
            <Button variant="contained" disabled={repair.isPending} onClick={save}>{t`Save record`}</Button>
            <Button onClick={() => setText(undefined)}>{t`Cancel`}</Button>
          </>
        )}
        <Button
          component="a"
          download={`${row.table}-${row.id}.json`}
          href={`data:application/json;charset=utf-8,${encodeURIComponent(whole)}`}
        >
          {t`Download record`}
        </Button>
        {row.removable && (
          <Sure
            asks={t`Remove this record?`}
            goes={t`It can't be brought back. Download it first if you might need it.`}
            yes={t`Remove record`}
            onYes={() => remove.mutate(row)}
          >
            {t`Remove record`}
          </Sure>
        )}
        {row.table === 'log' && <Button component={Link} to="/log">{t`Delete it in the log`}</Button>}
      </Box>
    </Box>
  );
}
