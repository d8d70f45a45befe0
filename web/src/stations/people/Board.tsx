/** The board: a row for each person, a column for each saw, and in it the kinds of cut that they may make alone. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import { useSignOff } from '../../api/people';
import type { Member, SawDuties, SignOffCut } from '../../api/types';
import { usePhone } from '../../ui/phone';
import { cutFace } from '../../drawings/theme';
import { DutyGlyph } from '../../drawings/DutyGlyph';
import { Tag } from '../../drawings/Tag';
import { Popover } from '../../ui/Floating';
import { Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { MemberSheet } from './MemberSheet';
import { duties, roleWords } from './words';

/** The kinds of cut that a saw makes, in words. */
const dutiesOf = (s: SawDuties) => duties.filter(([d]) => s.cuts.includes(d));

interface Props {
  people: Member[];
  saws: SawDuties[];
  owner: boolean;
  open: boolean; // nobody signs in here
  me: string | undefined;
}

export function Board({ people, saws, owner, open, me }: Props) {
  const phone = usePhone();
  const [of, setOf] = useState<{ member: string; saw: string; at: HTMLElement }>();
  const [sheet, setSheet] = useState<{ member: string; at: HTMLElement }>();
  const member = people.find((m) => m.id === of?.member);
  const saw = saws.find((s) => s.saw_id === of?.saw);
  const shown = people.find((m) => m.id === sheet?.member);
  if (people.length === 0) return <Box>{t`No people yet.`}</Box>;
  const cell = (m: Member, s: SawDuties) => {
    const may = m.signed_off.find((o) => o.saw_id === s.saw_id)?.cuts ?? [];
    const told =
      m.role === 'owner'
        ? t`as an owner, all cuts`
        : may.length === 0
          ? t`nothing alone`
          : duties
              .filter(([d]) => may.includes(d))
              .map(([, word]) => word.toLowerCase())
              .join(', ');
    return (
      <ButtonBase
        aria-label={t`${m.name} on ${s.name}: ${told}`}
        aria-haspopup="dialog"
        disabled={!owner || m.role === 'owner'}
        onClick={(e) => setOf({ member: m.id, saw: s.saw_id, at: e.currentTarget })}
        sx={{ minHeight: 48, px: 0.5, gap: 0.5, justifyContent: 'flex-start' }}
      >
        {dutiesOf(s).map(([d]) => (
          <DutyGlyph key={d} duty={d} may={m.role === 'owner' || may.includes(d)} size={phone ? 34 : 30} />
        ))}
      </ButtonBase>
    );
  };
  const who = (m: Member) => (
    <ButtonBase
      aria-haspopup="dialog"
      disabled={!owner && m.id !== me}
      onClick={(e) => setSheet({ member: m.id, at: e.currentTarget })}
      sx={{
        gap: 1.5,
        py: 0.75,
        minHeight: 64,
        justifyContent: 'flex-start',
        textAlign: 'left',
        width: '100%',
      }}
    >
      <Tag name={m.name} size={48} />
      <Box sx={{ minWidth: 0 }}>
        <Box
          sx={{
            fontFamily: cutFace,
            fontSize: 20,
            fontWeight: 640,
            lineHeight: 1.15,
            overflowWrap: 'anywhere',
          }}
        >
          {m.name}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
          {roleWords[m.role]}
          {!open && !m.signs_in && ` · ${m.invited_until ? t`invited` : t`uses the tablet`}`}
        </Box>
      </Box>
    </ButtonBase>
  );
  return (
    <>
      {phone ? (
        <Box component="ul" aria-label={t`People`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {people.map((m) => (
            <Box component="li" key={m.id} sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1 }}>
              {who(m)}
              {saws.map((s) => (
                <Box
                  key={s.saw_id}
                  sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: 1 }}
                >
                  <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>{s.name}</Box>
                  {cell(m, s)}
                </Box>
              ))}
            </Box>
          ))}
        </Box>
      ) : (
        <Box sx={{ overflowX: 'auto' }}>
          <Box
            component="table"
            aria-label={t`Who can cut what alone`}
            sx={{
              borderCollapse: 'collapse',
              width: '100%',
              '& th, & td': { borderTop: '1px solid', borderColor: 'divider', p: 0, textAlign: 'left' },
              '& thead th': { borderTop: 0, px: 0.5, pb: 1, fontWeight: 650, verticalAlign: 'bottom' },
            }}
          >
            <thead>
              <tr>
                <Box component="td" sx={{ border: '0 !important' }} />
                {saws.map((s) => (
                  <Box component="th" scope="col" key={s.saw_id}>
                    {s.name}
                  </Box>
                ))}
              </tr>
            </thead>
            <tbody>
              {people.map((m) => (
                <tr key={m.id}>
                  <Box component="th" scope="row" sx={{ minWidth: 200 }}>
                    {who(m)}
                  </Box>
                  {saws.map((s) => (
                    <td key={s.saw_id}>{cell(m, s)}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      )}
      <Key />
      <Popover
        open={of !== undefined}
        anchorEl={of?.at}
        onClose={() => setOf(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`Signed off` } as object }}
      >
        {member && saw && <SignOffs member={member} saw={saw} />}
      </Popover>
      <Popover
        open={sheet !== undefined}
        anchorEl={sheet?.at}
        onClose={() => setSheet(undefined)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': shown?.name } as object }}
      >
        {shown && (
          <MemberSheet
            key={shown.version}
            member={shown}
            owner={owner}
            open={open}
            me={shown.id === me}
            onGone={() => setSheet(undefined)}
          />
        )}
      </Popover>
    </>
  );
}

function Key() {
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 2.5,
        rowGap: 0.5,
        mt: 1.5,
        color: 'text.secondary',
        fontSize: 14.5,
      }}
    >
      {duties.map(([d, word]) => (
        <Box key={d} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <DutyGlyph duty={d} may size={22} /> {word}
        </Box>
      ))}
      <Box>{t`Filled: allowed alone`}</Box>
    </Box>
  );
}

/** Which cuts somebody may make alone on one saw, since when and by whom. */
function SignOffs({ member, saw }: { member: Member; saw: SawDuties }) {
  const signOff = useSignOff();
  const { day } = useDates();
  const now = member.signed_off.find((o) => o.saw_id === saw.saw_id);
  const may = now?.cuts ?? [];
  const toggle = (d: SignOffCut) =>
    signOff.mutate({
      id: member.id,
      saw: saw.saw_id,
      cuts: may.includes(d) ? may.filter((c) => c !== d) : [...may, d],
    });
  return (
    <Box sx={{ p: 2, width: 300 }}>
      <Box
        sx={{ fontFamily: cutFace, fontSize: 18, fontWeight: 640 }}
      >{t`${member.name} alone on ${saw.name}`}</Box>
      <Box sx={{ display: 'grid', mt: 1 }}>
        {dutiesOf(saw).map(([d, word]) => (
          <ButtonBase
            key={d}
            role="checkbox"
            aria-checked={may.includes(d)}
            disabled={signOff.isPending}
            onClick={() => toggle(d)}
            sx={{ minHeight: 52, gap: 1.5, justifyContent: 'flex-start', fontSize: 17, fontWeight: 600 }}
          >
            <DutyGlyph duty={d} may={may.includes(d)} size={34} />
            {word}
          </ButtonBase>
        ))}
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: 14.5, mt: 1 }}>
        {now ? t`Signed off by ${now.by}, ${day(now.at)}.` : t`Sign off what you have seen them do well.`}
      </Box>
      {signOff.error && <Trouble sx={{ mt: 1 }}>{signOff.error.message}</Trouble>}
    </Box>
  );
}
