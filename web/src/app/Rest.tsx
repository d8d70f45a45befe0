/** Under the shop's name: who is here, the rest of the shop, and where the bar is narrow the whole plan of it. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { Link } from 'react-router';
import { Languages } from './Languages';
import { Light, Units } from './Settings';
import { places, rest, type Room } from './places';
import { cutFace } from '../drawings/theme';
import { Whoever } from './Whoever';

interface Props {
  shop: string | undefined;
  roomy: boolean;
  search: string;
  onGo: () => void;
}

export function Rest({ shop, roomy, search, onGo }: Props) {
  return (
    <Box component="nav" aria-label={t`More`} sx={{ p: 1, width: 264, maxWidth: '100%' }}>
      {shop && (
        <Box sx={{ px: 1.5, py: 1, fontFamily: cutFace, fontWeight: 640, overflowWrap: 'anywhere' }}>
          {shop}
        </Box>
      )}
      <Whoever onGo={onGo} />
      {!roomy &&
        places
          .filter((p) => p.rooms.length > 0)
          .map((p) => <Row key={p.to} name={p.name} rooms={p.rooms} search={search} onGo={onGo} />)}
      {rest.map((r) => (
        <Row key={r.to} rooms={[r]} search={search} onGo={onGo} />
      ))}
      {!roomy && (
        <Box sx={{ display: 'flex', height: 52, mt: 1, borderTop: '1px solid', borderColor: 'divider' }}>
          <Units />
          <Box sx={{ flex: 1 }} />
          <Light />
        </Box>
      )}
      <Box
        sx={{
          minHeight: 52,
          display: 'flex',
          mt: roomy ? 1 : 0,
          borderTop: '1px solid',
          borderColor: 'divider',
        }}
      >
        <Languages />
      </Box>
    </Box>
  );
}

function Row({
  name,
  rooms,
  search,
  onGo,
}: {
  name?: string;
  rooms: Room[];
  search: string;
  onGo: () => void;
}) {
  return (
    <Box sx={{ borderTop: name ? '1px solid' : 0, borderColor: 'divider' }}>
      {rooms.map((r) => (
        <Box
          key={r.to}
          component={Link}
          to={r.to + search}
          onClick={onGo}
          sx={{
            minHeight: 48,
            px: 1.5,
            display: 'flex',
            alignItems: 'center',
            justifyContent: 'space-between',
            fontSize: 17,
            fontWeight: 600,
            color: 'text.primary',
            textDecoration: 'none',
            '&:focus-visible': { outlineOffset: -4 },
          }}
        >
          {r.name}
          {name && r === rooms[0] && (
            <Box component="span" sx={{ fontSize: 14, fontWeight: 400, color: 'text.secondary' }}>
              {name}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
