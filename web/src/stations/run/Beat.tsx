/**
 * A bar to feed by: it moves over the length of this cut at the feed that is
 * suggested, between the marks of the slowest and the fastest feed that still
 * cut well. Read from three metres, started by a tap, with a count-in to get
 * the hands in place.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import { ink } from '../../drawings/ink';
import { formatLength, trim } from '../../measure/format';
import { useBeat, type Beaten } from './useBeat';

export function Beat(props: Beaten) {
  const { lengthMm, slowest, fastest, units, heard } = props;
  const { state, count, seconds, start, through, stop, bar, band, clock, ...more } = useBeat(props);
  const { sound, setSound, buzz, setBuzz, follows, setFollows } = more;
  const open = fastest >= slowest;
  const foot = units === 'mm' ? 300 : 304.8;
  const marks = Array.from({ length: Math.floor(lengthMm / foot) }, (_, i) => ((i + 1) * foot) / lengthMm);
  return (
    <Box component="section" aria-label={t`Feed beat`}>
      <Box
        role="img"
        aria-label={t`A bar that crosses ${formatLength(lengthMm, units)} in ${trim(seconds, 1)} seconds`}
        sx={{
          position: 'relative',
          height: { xs: 150, md: 190 },
          border: '2px solid',
          borderColor: 'text.primary',
          bgcolor: 'drawing.wood',
          overflow: 'hidden',
        }}
      >
        <svg
          width="100%"
          height="100%"
          preserveAspectRatio="none"
          viewBox="0 0 100 100"
          aria-hidden
          focusable="false"
        >
          <path
            d="M0 14Q25 9 50 15T100 13M0 33Q30 38 60 31T100 35M0 55Q20 50 55 57T100 53M0 76Q40 71 70 78T100 75M0 92Q30 96 65 90T100 93"
            stroke={ink.grain}
            strokeWidth={1.4}
            vectorEffect="non-scaling-stroke"
            fill="none"
          />
          {marks.map((m) => (
            <path
              key={m}
              d={`M${100 * m} 100v-9`}
              stroke={ink.ink}
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
          ))}
        </svg>
        <Box
          ref={band}
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            left: 0,
            width: 0,
            bgcolor: 'background.default',
            opacity: 0.75,
            borderLeft: '3px dashed',
            borderRight: '3px dotted',
            borderColor: 'text.primary',
          }}
        />
        <Box
          ref={bar}
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            left: 0,
            width: 14,
            ml: '-7px',
            bgcolor: 'text.primary',
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            display: 'grid',
            placeItems: 'center',
            fontSize: { xs: 76, md: 104 },
            fontWeight: 750,
            lineHeight: 1,
            color: 'text.primary',
            textShadow:
              '0 0 14px var(--mui-palette-background-paper), 0 0 5px var(--mui-palette-background-paper)',
          }}
        >
          {state === 'counting' && <span>{count}</span>}
          {/* its text is drawn frame by frame, so React leaves it alone */}
          <span ref={clock} hidden={state === 'counting'} />
        </Box>
      </Box>
      <Box
        sx={{
          display: 'flex',
          justifyContent: 'space-between',
          fontSize: 13.5,
          color: 'text.secondary',
          mt: 0.25,
          gap: 2,
        }}
      >
        <span>
          {open
            ? t`Keep the bar in the clear zone: dashed is too slow, dotted too fast`
            : t`No feed rate cuts this well. The bar shows the best compromise.`}
        </span>
        <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
          {formatLength(lengthMm, units)}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {state === 'running' ? (
          <Button variant="contained" onClick={through} sx={{ ...wide, flex: { xs: '1 0 100%', sm: 1 } }}>
            {t`Through`}
          </Button>
        ) : (
          <Button
            variant="contained"
            onClick={start}
            disabled={state === 'counting'}
            sx={{ ...wide, flex: { xs: '1 0 100%', sm: 1 } }}
          >
            {state === 'counting' ? t`Hands in position…` : t`Start feed beat`}
          </Button>
        )}
        {state !== 'ready' && (
          <Button variant="outlined" onClick={stop} sx={wide}>{t`Stop feed beat`}</Button>
        )}
        {heard && (
          <ToggleButton value="follow" selected={follows} onChange={() => setFollows(!follows)} sx={wide}>
            {t`Follow the saw`}
          </ToggleButton>
        )}
        <ToggleButton value="sound" selected={sound} onChange={() => setSound(!sound)} sx={wide}>
          {t`Sound`}
        </ToggleButton>
        <ToggleButton value="buzz" selected={buzz} onChange={() => setBuzz(!buzz)} sx={wide}>
          {t`Vibrate`}
        </ToggleButton>
      </Box>
      <Box role="status" sx={visuallyHidden}>
        {state === 'counting' ? t`Counting in` : state === 'running' ? t`Feed beat running` : ''}
      </Box>
    </Box>
  );
}

const wide = { minHeight: 60, px: 2.5, fontSize: 18 };

const visuallyHidden = {
  position: 'absolute',
  width: '1px',
  height: '1px',
  overflow: 'hidden',
  clipPath: 'inset(50%)',
  whiteSpace: 'nowrap',
} as const;
