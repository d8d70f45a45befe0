/** Jobs: lists of cuts, their run sheets, and what is ticked off, with the ticks that wait here. */
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useSyncExternalStore } from 'react';
import client, { etag, unwrap } from './client';
import { BY_ITSELF, done, keyed, useChange } from './change';
import type { Job, JobInput, JobKnobs, JobRow, JobRowInput, Units } from './types';
import { waiting, watchWaiting, type Waiting } from './queue';

export const useJobs = () =>
  useQuery({
    queryKey: ['jobs'],
    queryFn: async () => unwrap(await client.GET('/jobs')).items,
    refetchInterval: BY_ITSELF, // another device may be ticking
  });

/** A job as it stands here: as the server has it, and the ticks that wait. */
export function useJob(id: string, units: Units) {
  const job = useQuery({
    queryKey: ['jobs', id, units],
    queryFn: async () =>
      unwrap(await client.GET('/jobs/{id}', { params: { path: { id }, query: { units } } })),
    refetchInterval: BY_ITSELF,
  });
  const waits = useSyncExternalStore(watchWaiting, waiting);
  const data = useMemo(() => job.data && ticked(job.data, waits), [job.data, waits]);
  return { ...job, data };
}

function ticked(job: Job, waits: Waiting[]): Job {
  const mine = waits.filter((w) => w.tick?.id === job.id && !w.refused);
  if (mine.length === 0) return job;
  const rows = job.rows.map((r) => {
    let { made, spoilt } = r;
    for (const w of mine)
      if (w.tick?.body.row_id === r.id) {
        made += w.tick.body.made;
        spoilt += w.tick.body.spoilt;
      }
    return { ...r, made, spoilt, left: Math.max(0, r.pieces - made) };
  });
  return { ...job, rows, left: rows.reduce((sum, r) => sum + r.left, 0) };
}

/** What is made of a list as it is typed; nothing is kept. */
export const useJobList = (text: string, units: Units, above?: JobRowInput) =>
  useQuery({
    queryKey: ['job-list', text, units, above?.id],
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
    queryFn: async () => unwrap(await client.POST('/job-lists', { body: { text, units, above } })).lines,
  });

/** How long this shop takes against what is foretold. */
export const usePace = () =>
  useQuery({ queryKey: ['jobs', 'pace'], queryFn: async () => unwrap(await client.GET('/pace')) });

/** The sheet that other knobs would give. */
export const useWhatIf = (job: Job | undefined, knobs: JobKnobs | undefined, units: Units) =>
  useQuery({
    queryKey: ['jobs', job?.id, 'what-if', job?.version, job?.left, knobs, units],
    enabled: job !== undefined && knobs !== undefined,
    placeholderData: keepPreviousData,
    queryFn: async () =>
      unwrap(
        await client.POST('/jobs/{id}/what-if', {
          params: { path: { id: job!.id } },
          body: { knobs: knobs!, units },
        }),
      ),
  });

export const useAddJob = () =>
  useChange('jobs', async ({ key, body }: { key: string; body: JobInput }) =>
    unwrap(await client.POST('/jobs', { params: { header: keyed(key) }, body })),
  );

export const useChangeJob = () =>
  useChange('jobs', async ({ job, body }: { job: Job; body: JobInput }) =>
    unwrap(
      await client.PUT('/jobs/{id}', { params: { path: { id: job.id }, header: etag(job.version) }, body }),
    ),
  );

export const usePlanJob = () =>
  useChange('jobs', async ({ job, knobs, units }: { job: Job; knobs: JobKnobs; units: Units }) =>
    unwrap(
      await client.PUT('/jobs/{id}/sheet', {
        params: { path: { id: job.id }, header: etag(job.version) },
        body: { knobs, units },
      }),
    ),
  );

export const useDropJob = () =>
  useChange('jobs', async ({ id, version }: { id: string; version: number }) =>
    done(await client.DELETE('/jobs/{id}', { params: { path: { id }, header: etag(version) } })),
  );

/** A job's list as text, to begin another from. */
export function useCopyOf() {
  const cache = useQueryClient();
  return (id: string) =>
    cache.fetchQuery({
      queryKey: ['jobs', id, 'csv'],
      queryFn: async () =>
        unwrap(
          await client.GET('/jobs/{id}/file', {
            params: { path: { id }, query: { format: 'csv' } },
            parseAs: 'text',
          }),
        ),
    });
}

/** A row as it is sent back. */
export const rowInput = (r: JobRow): JobRowInput => ({
  id: r.id,
  name: r.name,
  assembly: r.assembly,
  pieces: r.pieces,
  material: r.material,
  direction: r.direction,
  finish: r.finish,
  thickness_mm: r.thickness_mm,
  width_mm: r.width_mm,
  length_mm: r.length_mm,
  form: r.form,
  depth_mm: r.depth_mm,
  bevel_deg: r.bevel_deg,
  miter_deg: r.miter_deg,
  moisture: r.moisture,
  moves: r.moves,
  stage: r.stage,
  saw_id: r.saw_id,
  blade_id: r.blade_id,
});
