/** A page whose data are on their way, in its own shape; or do not come, with the reason and the way to ask again. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Trouble } from './Notice';
import { Outline } from './Outline';

/** Something that the page waits for. */
export interface Awaited {
  error: Error | null;
  data: unknown;
  refetch: () => unknown;
}

interface Shape {
  of: Awaited[];
  rows?: number;
  height?: number; // of a row, px
  drawing?: boolean;
}

export function Arriving({ title, ...shape }: Shape & { title: string }) {
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        {title}
      </Typography>
      <Coming {...shape} />
    </Box>
  );
}

/** The same, beneath a heading that stands already. */
export function Coming({ of, rows = 3, height = 120, drawing }: Shape) {
  const failed = of.find((q) => q.error && q.data === undefined);
  if (!failed) return <Outline rows={rows} height={height} drawing={drawing} />;
  return (
    <Trouble onAgain={() => void Promise.all(of.map((q) => q.refetch()))}>{failed.error?.message}</Trouble>
  );
}
