/** Two people, one record: what the other one changed, before anything is written over it. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

interface Props {
  what: string;
  mine: Record<string, unknown>;
  theirs: Record<string, unknown>;
  onTheirs: () => void; // begin anew from what is there now
  onMine: () => void; // keep what was typed, knowing of the other
}

const show = (v: unknown) =>
  v === undefined || v === '' ? 'nothing' : typeof v === 'string' ? v : JSON.stringify(v);

export function Stale({ what, mine, theirs, onTheirs, onMine }: Props) {
  const fields = Object.keys(mine).filter((k) => show(mine[k]) !== show(theirs[k]));
  return (
    <Alert severity="warning" variant="outlined" sx={{ mb: 2 }}>
      <b>Somebody else has changed this {what} since you opened it.</b> Nothing of yours is saved yet.
      <Box
        component="table"
        sx={{ my: 1, fontSize: 15, '& td, & th': { pr: 3, textAlign: 'left' } }}
        aria-label="What differs"
      >
        <thead>
          <tr>
            <th>Field</th>
            <th>There now</th>
            <th>Yours</th>
          </tr>
        </thead>
        <tbody>
          {fields.map((k) => (
            <tr key={k}>
              <td>{k}</td>
              <td>{show(theirs[k])}</td>
              <td>{show(mine[k])}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={onTheirs}>
          Take what is there
        </Button>
        <Button variant="outlined" onClick={onMine}>
          Keep mine, and let me save over it
        </Button>
      </Box>
    </Alert>
  );
}
