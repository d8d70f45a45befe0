import { Navigate, useLocation, useParams } from 'react-router';

/** Leads an address that a page had once to where the page is now, with the rest of the address. */
export function Moved({ to }: { to: string }) {
  const rest = useParams()['*'];
  const { search, hash } = useLocation();
  return <Navigate replace to={{ pathname: rest ? `/${to}/${rest}` : `/${to}`, search, hash }} />;
}
