/** What opens the shop without a password: tablets, scripts and guests, each to be withdrawn. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useAddDevice, useAddToken, usePasses, useWithdraw } from '../../api/people';
import type { Role, ShopPass } from '../../api/types';
import { LineField, NumberField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { Handed } from '../../ui/Handed';
import { RoleChoice } from './RoleChoice';
import { roleWords } from './words';

export function Passes() {
  const passes = usePasses(true);
  const withdraw = useWithdraw();
  const [making, setMaking] = useState<'tablet' | 'token'>();
  return (
    <Box component="section" aria-labelledby="passes">
      <Typography id="passes" variant="h2">{t`Tablets, tokens and links`}</Typography>
      {passes.error && <Trouble sx={{ my: 1 }}>{passes.error.message}</Trouble>}
      {withdraw.error && <Trouble sx={{ my: 1 }}>{withdraw.error.message}</Trouble>}
      {passes.data?.length === 0 && (
        <Box sx={{ my: 1 }}>{t`Only passwords: no tablets, tokens or guest links.`}</Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {passes.data?.map((p) => (
          <Box
            component="li"
            key={p.id}
            sx={{
              display: 'flex',
              gap: 1,
              alignItems: 'center',
              borderTop: '1px solid',
              borderColor: 'divider',
            }}
          >
            <One of={p} />
            <Button disabled={withdraw.isPending} onClick={() => withdraw.mutate(p.id)}>{t`Revoke`}</Button>
          </Box>
        ))}
      </Box>
      {making === 'tablet' && <Tablet onDone={() => setMaking(undefined)} />}
      {making === 'token' && <Token onDone={() => setMaking(undefined)} />}
      {!making && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
          <Button
            variant="outlined"
            onClick={() => setMaking('tablet')}
          >{t`Make this a shop tablet…`}</Button>
          <Button variant="outlined" onClick={() => setMaking('token')}>{t`Create access token…`}</Button>
        </Box>
      )}
    </Box>
  );
}

function One({ of: p }: { of: ShopPass }) {
  const { day } = useDates();
  const what =
    p.kind === 'tablet'
      ? t`tablet`
      : p.kind === 'guest'
        ? t`can read the report of ${p.blade ?? ''}`
        : t`script, ${roleWords[p.role ?? 'viewer']}`;
  return (
    <Box sx={{ flex: 1, minWidth: 0, py: 1 }}>
      <Box sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{p.name}</Box>
      <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
        {what}; {t`by ${p.made_by}, ${day(p.made_at)}`}
        {p.ends_at && `; ${t`until ${day(p.ends_at)}`}`}
        {p.used_at && `; ${t`used ${day(p.used_at)}`}`}
      </Box>
    </Box>
  );
}

const box = {
  border: '2px solid',
  borderColor: 'text.primary',
  bgcolor: 'background.paper',
  p: 1.5,
  mt: 1,
  display: 'grid',
  gap: 1.5,
};

function Tablet({ onDone }: { onDone: () => void }) {
  const [name, setName] = useState('');
  const add = useAddDevice();
  return (
    <Box
      component="form"
      sx={box}
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate(name);
      }}
    >
      <Box>{t`Do this on the tablet itself. You will be signed out there, and people tap their name to work.`}</Box>
      <LineField label={t`Location`} value={name} most={60} onText={setName} />
      {add.error && <Trouble>{add.error.message}</Trouble>}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          type="submit"
          variant="contained"
          disabled={name.trim() === '' || add.isPending}
        >{t`Make this a shop tablet`}</Button>
        <Button onClick={onDone}>{t`Cancel`}</Button>
      </Box>
    </Box>
  );
}

function Token({ onDone }: { onDone: () => void }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState<Role>('viewer');
  const [days, setDays] = useState<number | undefined>(90);
  const add = useAddToken();
  if (add.data)
    return (
      <Box sx={box}>
        <Handed
          what={t`The script sends it as “Authorization: Bearer”. It can't do more than you can.`}
          text={add.data.token}
          onDone={onDone}
        />
      </Box>
    );
  return (
    <Box
      component="form"
      sx={box}
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate({ name, role, days: days ?? 1 });
      }}
    >
      <LineField label={t`Purpose`} value={name} most={60} onText={setName} />
      <RoleChoice value={role} onChoose={setRole} />
      <NumberField
        label={t`Valid for`}
        unit={plural(days ?? 0, { one: 'day', other: 'days' })}
        value={days}
        onNumber={setDays}
      />
      {add.error && <Trouble>{add.error.message}</Trouble>}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          type="submit"
          variant="contained"
          disabled={name.trim() === '' || !days || add.isPending}
        >{t`Create token`}</Button>
        <Button onClick={onDone}>{t`Cancel`}</Button>
      </Box>
    </Box>
  );
}
