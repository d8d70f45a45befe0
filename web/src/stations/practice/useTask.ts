/** One task after the other of a drill, and what was answered to it. */
import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAnswerDrill, useDrillTask } from '../../api/practice';
import type { DrillAnswer, DrillName, DrillTask } from '../../api/types';
import { usePreferences } from '../../ui/preferences';

const NUMBERS = 1_000_000;
const any = () => Math.floor(Math.random() * NUMBERS);

export type Given = Pick<DrillAnswer, 'choice' | 'value' | 'places_mm' | 'checks' | 'push'>;

/** An address may name a task, so that two can mean the same one. */
export function useTask(drill: DrillName) {
  const { units } = usePreferences();
  const [query] = useSearchParams();
  const [rack, setRack] = useState(false);
  const [ask, setAsk] = useState(() => ({
    number: Number(query.get('number') ?? any()),
    skill: query.get('skill') ?? undefined,
    level: query.has('level') ? Number(query.get('level')) : undefined,
  }));
  const task = useDrillTask({ drill, units, ...ask, ...(drill === 'which' && rack && { rack }) });
  const answer = useAnswerDrill();
  // Who sends the same answer again, since nothing was heard, sends it under the same key; another one is another.
  const sent = useRef({ key: '', what: '' });
  const anew = () => {
    sent.current.what = '';
    answer.reset();
  };
  const give = (of: DrillTask, given: Given) => {
    const what = JSON.stringify([of.skill, of.number, of.level, given]);
    if (what !== sent.current.what) sent.current = { key: crypto.randomUUID(), what };
    answer.mutate({
      key: sent.current.key,
      skill: of.skill,
      number: of.number,
      level: of.level,
      units,
      ...(rack && { rack }),
      ...given,
    });
  };
  return {
    task,
    answer,
    give,
    /** The same once more. */
    again: anew,
    /** The next, of what is due; or of the skill that the address named. */
    next: () => {
      anew();
      setAsk((a) => ({
        number: any(),
        skill: query.get('skill') ?? undefined,
        level: query.has('level') ? a.level : undefined,
      }));
    },
    rack,
    useRack: (on: boolean) => {
      anew();
      setRack(on);
    },
  };
}

export type Tasked = ReturnType<typeof useTask>;

/** What a part of the page that takes an answer is given. */
export interface Taking {
  task: DrillTask;
  onAnswer: (given: Given) => void;
  busy: boolean;
  told: ReturnType<typeof useTask>['answer']['data']; // once it was answered
}
