/** Asked once of the only owner, after the first answer: to have a way in beside the password. */
import { t } from '@lingui/core/macro';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Session } from '../api/types';
import { Offer } from './Offer';

const KEY = 'corte.asked.recovery';

export function NoWayBack({ session }: { session: Session }) {
  const who = session.member_id ?? '';
  const [asked, setAsked] = useState(() => localStorage.getItem(KEY) === who);
  if (asked) return null;
  const done = () => {
    localStorage.setItem(KEY, who);
    setAsked(true);
  };
  return (
    <Offer label={t`Recovery codes`}>
      <span>{t`You are the only owner. If you forget your password, you can't get into your shop.`}</span>
      <Button component={Link} to="/me" onClick={done}>{t`Make recovery codes`}</Button>
      <Button onClick={done}>{t`Not now`}</Button>
    </Offer>
  );
}
