/** What the frame has to say above the place bar, once the first answer stands. */
import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { lookingRound } from '../api/place';
import '../api/refresh'; // so that they are there when the network is not
import '../api/sending';
import { useSession } from '../api/session';
import { useShop } from '../api/shop';
import { sweepKept } from '../api/sweep';
import { Offline } from './Offline';
import { LookingRound } from './LookingRound';
import { NewVersion } from './NewVersion';
import { NoWayBack } from './NoWayBack';
import { ZoneOffer } from './ZoneOffer';

export function Said() {
  const session = useSession().data;
  const shop = useShop().data;
  const { pathname } = useLocation();
  useEffect(() => void sweepKept().catch(() => undefined), []);
  return (
    <>
      {lookingRound && <LookingRound />}
      {shop && !shop.time_zone && <ZoneOffer shop={shop} />}
      {pathname === '/' && session?.no_way_back && <NoWayBack session={session} />}
      <Offline />
      <NewVersion />
    </>
  );
}
