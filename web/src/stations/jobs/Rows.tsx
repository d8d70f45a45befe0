/** The rows of a job by stage: what they are, where they are cut, and how far they are. Dragged into another order or stage. */
import { t } from '@lingui/core/macro';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useDroppable,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { rowInput, useChangeJob } from '../../api/jobs';
import { useKeep } from '../../api/logging';
import type { Job, JobRow, JobRowInput, JobStage, RunSheet, Saw, Units } from '../../api/types';
import { upper } from '../../drawings/words';
import { Trouble } from '../../ui/Notice';
import { RowLine, type Planned } from './RowLine';
import { stageOrder, stages } from '../../cut/jobWords';

const howTo = t`Press space to lift the row, arrows to move it, space to drop it, escape to cancel.`;

/** What is told of a row that is on its way. */
function said(rows: JobRow[]): Announcements {
  const name = (id: UniqueIdentifier | undefined) =>
    rows.find((r) => r.id === id)?.name ?? stages[id as JobStage] ?? '';
  return {
    onDragStart: ({ active }) => t`Moving ${name(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? t`${name(active.id)} is now at ${name(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      over ? t`${name(active.id)} moved to ${name(over.id)}.` : t`${name(active.id)} is restored.`,
    onDragCancel: ({ active }) => t`${name(active.id)} is back where it was.`,
  };
}

interface Props {
  job: Job;
  sheet: RunSheet | undefined;
  units: Units;
  saws: Saw[];
  chosen: string | undefined;
  onChoose: (row: string | undefined) => void;
}

export function Rows({ job, sheet, units, saws, chosen, onChoose }: Props) {
  const change = useChangeJob();
  const keep = useKeep();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const where = new Map<string, Planned>();
  for (const turn of sheet?.turns ?? [])
    for (const cut of turn.cuts) if (!where.has(cut.row_id)) where.set(cut.row_id, { turn, cut });
  const put = (rows: JobRowInput[]) =>
    change.mutate({ job, body: { name: job.name, rows, knobs: job.knobs, units } });
  const edit = (id: string, part: Partial<JobRowInput> | null) =>
    put(
      job.rows
        .filter((r) => part !== null || r.id !== id)
        .map((r) => (r.id === id ? { ...rowInput(r), ...part } : rowInput(r))),
    );
  const tick = (row: JobRow, made: number, spoilt: number) =>
    keep.mutate({
      key: crypto.randomUUID(),
      tick: { id: job.id, body: { row_id: row.id, made, spoilt } },
      blade: row.name,
    });
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const moved = job.rows.find((r) => r.id === active.id);
    if (!moved) return;
    const onto = job.rows.find((r) => r.id === over.id);
    const stage = onto?.in_stage ?? (over.id as JobStage);
    const rest = job.rows.filter((r) => r.id !== moved.id);
    const down = onto && job.rows.indexOf(onto) > job.rows.indexOf(moved) && onto.in_stage === moved.in_stage;
    const at = onto ? rest.indexOf(onto) + (down ? 1 : 0) : rest.length;
    const one = { ...rowInput(moved), stage: stage === moved.in_stage ? moved.stage : stage };
    put([...rest.slice(0, at).map(rowInput), one, ...rest.slice(at).map(rowInput)]);
  };
  const failed = change.error ?? keep.error;
  return (
    <Box component="section" aria-label={t`Rows`}>
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      {job.moved && (
        <Box sx={{ mb: 1, fontWeight: 600 }}>
          {t`The list has changed since it was planned. Replan the rest.`}
        </Box>
      )}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={{ screenReaderInstructions: { draggable: howTo }, announcements: said(job.rows) }}
      >
        {stageOrder.map((stage) => {
          const rows = job.rows.filter((r) => r.in_stage === stage);
          return (
            <Stage key={stage} stage={stage} empty={rows.length === 0}>
              <SortableContext items={rows.map((r) => r.id)} strategy={verticalListSortingStrategy}>
                {rows.map((r) => (
                  <RowLine
                    key={r.id}
                    job={job.id}
                    row={r}
                    planned={where.get(r.id)}
                    units={units}
                    saws={saws}
                    chosen={r.id === chosen}
                    busy={change.isPending}
                    onChoose={() => onChoose(r.id === chosen ? undefined : r.id)}
                    onTick={(made, spoilt) => tick(r, made, spoilt)}
                    onEdit={(part) => edit(r.id, part)}
                  />
                ))}
              </SortableContext>
            </Stage>
          );
        })}
      </DndContext>
    </Box>
  );
}

/** A stage takes rows in, also where it has none. */
function Stage({ stage, empty, children }: { stage: JobStage; empty: boolean; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: stage });
  return (
    <Box
      ref={setNodeRef}
      sx={{
        mb: empty ? 0.5 : 2,
        outline: isOver ? '2.5px dashed' : undefined,
        '@media print': { display: empty ? 'none' : undefined },
      }}
    >
      <Typography
        variant="h2"
        sx={{ fontSize: empty ? 15 : undefined, color: empty ? 'text.secondary' : undefined }}
      >
        {empty ? t`${upper(stages[stage])}: none` : upper(stages[stage])}
      </Typography>
      {children}
    </Box>
  );
}
