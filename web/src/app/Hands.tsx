/** At a shop's tablet, over the place bar: who works now. A tag is tapped, and its PIN where the shop wants one. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useEffect, useRef, useState } from 'react';
import { useSignOut, useTakeHand } from '../api/people';
import type { Session } from '../api/types';
import { Tag } from '../drawings/Tag';
import { Popover } from '../ui/Floating';
import { cutFace } from '../drawings/theme';

type Hand = Session['hands'][number];

export function Hands({ session }: { session: Session }) {
  const [open, setOpen] = useState<{ hand?: Hand; at: HTMLElement }>();
  const take = useTakeHand();
  const letGo = useSignOut();
  const close = () => setOpen(undefined);
  const tap = (hand: Hand, at: HTMLElement) => {
    take.reset();
    if (session.pins) setOpen({ hand, at });
    else void take.mutateAsync({ member_id: hand.id }).then(close, () => undefined);
  };
  return (
    <Box
      component="section"
      aria-label={t`Who's working?`}
      sx={{
        px: { xs: 1, md: 2 },
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        borderTop: '2px solid',
        borderColor: 'text.primary',
        bgcolor: 'background.paper',
        '@media print': { display: 'none' },
      }}
    >
      {session.state === 'in' ? (
        <>
          <Tag name={session.name ?? ''} size={40} worn />
          <Box sx={{ flex: 1, minWidth: 0, fontFamily: cutFace, fontSize: 18, fontWeight: 640 }}>
            {session.name}
          </Box>
          <Button
            disabled={letGo.isPending}
            onClick={() => letGo.mutate(undefined)}
          >{t`Back to the names`}</Button>
        </>
      ) : (
        <>
          <Box sx={{ flex: 'none', fontWeight: 650 }}>{t`Who's working?`}</Box>
          <Box sx={{ display: 'flex', overflowX: 'auto', flex: 1, minWidth: 0 }}>
            {session.hands.map((h) => (
              <ButtonBase
                key={h.id}
                onClick={(e) => tap(h, e.currentTarget)}
                sx={{ flex: 'none', gap: 0.75, px: 1, minHeight: 60, fontSize: 17, fontWeight: 600 }}
              >
                <Tag name={h.name} size={44} />
                {h.name}
              </ButtonBase>
            ))}
          </Box>
        </>
      )}
      <Popover
        open={open?.hand !== undefined}
        anchorEl={open?.at}
        onClose={close}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`PIN` } as object }}
      >
        {open?.hand && (
          <Pad
            key={open.hand.id}
            hand={open.hand}
            busy={take.isPending}
            wrong={take.error?.message}
            onPin={(pin) =>
              void take.mutateAsync({ member_id: open.hand!.id, pin }).then(close, () => undefined)
            }
          />
        )}
      </Popover>
    </Box>
  );
}

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '⌫', '0', 'ok'] as const;

/** Keys for a PIN that a gloved finger finds. */
function Pad({
  hand,
  busy,
  wrong,
  onPin,
}: {
  hand: Hand;
  busy: boolean;
  wrong: string | undefined;
  onPin: (pin: string) => void;
}) {
  const [pin, setPin] = useState('');
  const pad = useRef<HTMLDivElement>(null);
  useEffect(() => pad.current?.focus(), []); // so that a keyboard types it too
  const press = (k: string) => {
    if (k === 'ok') {
      if (pin.length >= 4) {
        onPin(pin);
        setPin('');
      }
    } else if (k === '⌫') setPin((p) => p.slice(0, -1));
    else setPin((p) => (p + k).slice(0, 8));
  };
  return (
    <Box
      ref={pad}
      tabIndex={-1}
      sx={{ p: 1.5, width: 260, outline: 'none' }}
      onKeyDown={(e) => {
        if (/^\d$/.test(e.key)) press(e.key);
        else if (e.key === 'Backspace') press('⌫');
        else if (e.key === 'Enter' && e.target === pad.current) press('ok');
      }}
    >
      <Box sx={{ fontFamily: cutFace, fontSize: 18, fontWeight: 640 }}>
        {hand.pin ? t`${hand.name}’s PIN` : t`${hand.name}, choose a PIN of four to eight digits`}
      </Box>
      <Box
        role="status"
        aria-label={t`Digits entered`}
        sx={{ fontSize: 28, letterSpacing: 8, minHeight: 40, textAlign: 'center' }}
      >
        {'•'.repeat(pin.length)}
      </Box>
      {wrong && (
        <Box role="alert" sx={{ color: 'error.main', fontSize: 15, mb: 1 }}>
          {wrong}
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 0.75 }}>
        {KEYS.map((k) => (
          <ButtonBase
            key={k}
            aria-label={k === 'ok' ? t`Confirm` : k === '⌫' ? t`Delete last digit` : k}
            disabled={busy || (k === 'ok' && pin.length < 4)}
            onClick={() => press(k)}
            sx={{
              minHeight: 56,
              fontSize: 22,
              fontWeight: 650,
              border: '1.5px solid',
              borderColor: 'drawing.hair',
              '&.Mui-disabled': { opacity: 0.45 },
            }}
          >
            {k === 'ok' ? '✓' : k}
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}
