/** Who belongs to the shop: a tag each, and a board of what each may cut alone on which saw. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { usePeople } from '../../api/people';
import { useOwner, useSession } from '../../api/session';
import { useChangeShop, useShop } from '../../api/shop';
import type { Member, Shop } from '../../api/types';
import { pick } from '../../ui/pick';
import { Arriving } from '../../ui/Arriving';
import { CheckField } from '../../ui/Fields';
import { Notice, Trouble } from '../../ui/Notice';
import { Segments } from '../../ui/Segments';
import { AddMember } from './AddMember';
import { Audit } from './Audit';
import { Board } from './Board';
import { Learnt } from './Learnt';
import { Passes } from './Passes';

export function People() {
  const people = usePeople();
  const session = useSession();
  const owner = useOwner();
  const [adding, setAdding] = useState(false);
  if (!people.data || !session.data) return <Arriving title={t`People`} of={[people, session]} rows={4} />;
  const open = session.data.state === 'open';
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 1 }}>
        <Typography variant="h1" sx={{ flex: '1 1 auto' }}>{t`People`}</Typography>
        {owner && !adding && (
          <Button variant="contained" onClick={() => setAdding(true)}>{t`Add person`}</Button>
        )}
      </Box>
      {open && (
        <Notice kind="said" sx={{ mb: 2 }}>
          {t`No sign-in is needed on this computer, and anyone here acts as the owner. You can still record people and sign-offs. Set CORTE_SIGN_IN=on to require sign-in.`}
        </Notice>
      )}
      {session.data.no_way_back && (
        <Notice
          kind="caution"
          sx={{ mb: 2 }}
          action={<Button component={Link} to="/me">{t`Make recovery codes`}</Button>}
        >
          {t`You are the only owner, with a password alone. If you forget it, you can't get into your shop. Make recovery codes, add a passkey, or make another person an owner.`}
        </Notice>
      )}
      {adding && <AddMember open={open} onDone={() => setAdding(false)} />}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', lg: owner ? 'minmax(0,2fr) minmax(300px,1fr)' : '1fr' },
          columnGap: 4,
          rowGap: 4,
          alignItems: 'start',
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Board
            people={people.data.items}
            saws={people.data.saws}
            owner={owner}
            open={open}
            me={session.data.member_id}
          />
          {owner && <Rules />}
          <Learning members={people.data.items} owner={owner} />
        </Box>
        {owner && (
          <Box sx={{ minWidth: 0, display: 'grid', gap: 4 }}>
            {!open && <Passes />}
            <Audit />
          </Box>
        )}
      </Box>
    </Box>
  );
}

const inputOf = (s: Shop) =>
  pick(s, ['name', 'change_minutes', 'height_school', 'learning', 'sharpening_price', 'rework', 'time_zone']);

function Learning({ members, owner }: { members: Member[]; owner: boolean }) {
  const shop = useShop();
  const change = useChangeShop();
  const at = shop.data;
  if (!at) return null;
  return (
    <>
      <Learnt
        members={members}
        asked={at.drills ?? []}
        {...(owner && {
          onAsk: (drills) => change.mutate({ version: at.version, body: { ...inputOf(at), drills } }),
        })}
      />
      {change.error && <Trouble sx={{ mt: 1 }}>{change.error.message}</Trouble>}
    </>
  );
}

/** What the shop says of a cut that nobody signed its maker off for, and whether a tapped name wants a PIN. */
function Rules() {
  const shop = useShop();
  const change = useChangeShop();
  const at = shop.data;
  if (!at) return null;
  const set = (part: Partial<Pick<Shop, 'sign_off' | 'pins'>>) =>
    change.mutate({ version: at.version, body: { ...inputOf(at), ...part } });
  return (
    <Box component="section" aria-labelledby="rules" sx={{ mt: 3 }}>
      <Typography id="rules" variant="h2">{t`People not signed off for a cut`}</Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 3, rowGap: 1, mt: 1 }}>
        <Segments
          label={t`Then they`}
          value={at.sign_off ?? 'off'}
          choices={[
            { value: 'off', name: t`see nothing` },
            { value: 'caution', name: t`see a caution` },
            { value: 'stop', name: t`are stopped unless a trained person stands by` },
          ]}
          onChoose={(sign_off) => set({ sign_off })}
        />
        <CheckField
          label={t`Tablets ask for a PIN`}
          value={at.pins ?? true}
          onCheck={(pins) => set({ pins })}
        />
      </Box>
      {change.error && <Trouble sx={{ mt: 1 }}>{change.error.message}</Trouble>}
    </Box>
  );
}
