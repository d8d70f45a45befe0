/** A sheet with a blade drawn along its edge and one thing to do on it: the way in. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { ink } from '../../drawings/ink';

const TEETH = 40;

/** Part of a large blade, from the side. */
function Rim() {
  const at = (r: number, turn: number) => {
    const a = (turn * 2 * Math.PI) / TEETH;
    return `${(r * Math.sin(a)).toFixed(1)} ${(-r * Math.cos(a)).toFixed(1)}`;
  };
  const teeth = Array.from(
    { length: TEETH },
    (_, i) => `L${at(356, i)}L${at(397, i + 0.1)}L${at(393, i + 0.34)}L${at(366, i + 0.66)}`,
  ).join('');
  return (
    <svg
      viewBox="-400 -400 800 800"
      width="100%"
      height="100%"
      preserveAspectRatio="xMidYMid slice"
      aria-hidden
      focusable="false"
    >
      <path
        d={`M${at(356, 0)}${teeth}Z`}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={3}
        strokeLinejoin="round"
      />
      <circle r={262} fill="none" stroke={ink.hair} strokeWidth={1.5} />
      <circle r={118} fill="none" stroke={ink.hair} strokeWidth={1.5} strokeDasharray="10 7" />
      <circle r={26} fill={ink.sheet} stroke={ink.ink} strokeWidth={3} />
      <path d="M-60 0H60M0 -60V60" stroke={ink.hair} strokeWidth={1.2} strokeDasharray="18 5 4 5" />
    </svg>
  );
}

export function Plate({ title, said, children }: { title: string; said?: ReactNode; children: ReactNode }) {
  return (
    <Box
      component="main"
      sx={{
        minHeight: '100%',
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '5fr 6fr' },
        gridTemplateRows: { xs: '120px 1fr', sm: '220px 1fr', md: '1fr' },
      }}
    >
      <Box
        sx={{
          overflow: 'hidden',
          position: 'relative',
          borderRight: { md: '2px solid' },
          borderBottom: { xs: '2px solid', md: 0 },
          '&&': { borderColor: 'text.primary' },
        }}
      >
        <Box
          sx={{
            position: 'absolute',
            width: { xs: 480, sm: 760, md: 1000 },
            height: { xs: 480, sm: 760, md: 1000 },
            left: { xs: '50%', md: 0 },
            top: { xs: 24, md: '50%' },
            transform: { xs: 'translateX(-50%)', md: 'translate(-52%, -50%)' },
          }}
        >
          <Rim />
        </Box>
      </Box>
      <Box sx={{ px: { xs: 2, md: 6 }, py: 3, alignSelf: { md: 'center' }, maxWidth: 560, width: '100%' }}>
        <Typography variant="h1" sx={{ fontSize: { xs: '1.75rem', md: '2.4rem' }, overflowWrap: 'anywhere' }}>
          {title}
        </Typography>
        {said && <Box sx={{ mt: 1, color: 'text.secondary', fontSize: 17 }}>{said}</Box>}
        <Box sx={{ mt: 3 }}>{children}</Box>
      </Box>
    </Box>
  );
}
