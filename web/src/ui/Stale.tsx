/** Two people, one record: what the other one changed, before anything is written over it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Units } from '../api/types';
import { formatThin } from '../measure/format';
import { Notice } from './Notice';

interface Props {
  what: string;
  mine: object;
  theirs: object;
  units: Units;
  onTheirs: () => void; // begin anew from what is there now
  onMine: () => void; // keep what was typed, knowing of the other
}

/** `kerf_mm` is a kerf; of a saw's brake and tolerances every part is named. */
const said = (field: string) => field.replace(/_(mm|deg|w|a)$/, '').replace(/[._]/g, ' ');

function show(field: string, v: unknown, units: Units): string {
  if (v === undefined || v === '') return 'nothing';
  if (typeof v === 'boolean') return v ? 'yes' : 'no';
  if (typeof v === 'number') return field.endsWith('_mm') ? formatThin(v, units) : String(v);
  return typeof v === 'string' ? v : JSON.stringify(v);
}

/** A record's fields, those of its parts too: `brake.min_kerf_mm`. */
function flat(record: object, units: Units, under = ''): Map<string, string> {
  const out = new Map<string, string>();
  for (const [k, v] of Object.entries(record) as [string, unknown][]) {
    if (typeof v === 'object' && v !== null && !Array.isArray(v))
      for (const [name, text] of flat(v, units, `${under}${k}.`)) out.set(name, text);
    else out.set(under + k, show(k, v, units));
  }
  return out;
}

export function Stale({ what, mine, theirs, units, onTheirs, onMine }: Props) {
  const [my, their] = [flat(mine, units), flat(theirs, units)];
  const none = 'nothing';
  const fields = [...new Set([...my.keys(), ...their.keys()])].filter(
    (k) => (my.get(k) ?? none) !== (their.get(k) ?? none),
  );
  return (
    <Notice kind="caution" sx={{ mb: 2 }}>
      <b>{t`This ${what} was changed by another person since you opened it.`}</b>
      {` ${t`Your version isn't saved yet.`}`}
      <Box
        component="table"
        sx={{ my: 1, fontSize: 15, '& td, & th': { pr: 3, textAlign: 'left' } }}
        aria-label={t`Differences`}
      >
        <thead>
          <tr>
            <th>{t`Field`}</th>
            <th>{t`Theirs`}</th>
            <th>{t`Yours`}</th>
          </tr>
        </thead>
        <tbody>
          {fields.map((k) => (
            <tr key={k}>
              <td>{said(k)}</td>
              <td>{their.get(k) ?? none}</td>
              <td>{my.get(k) ?? none}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={onTheirs}>{t`Use theirs`}</Button>
        <Button variant="outlined" onClick={onMine}>{t`Keep mine`}</Button>
      </Box>
    </Notice>
  );
}
