/** How the shop likes to work: what a change of blade counts for, and how high blades are set. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { ProblemError } from '../../api/client';
import { useOwner } from '../../api/session';
import { useLessons } from '../../api/run';
import { useChangeShop, useShop } from '../../api/shop';
import type { HeightSchool, Shop, ShopInput } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { Arriving } from '../../ui/Arriving';
import { CheckField, LineField, NumberField } from '../../ui/Fields';
import { pick } from '../../ui/pick';
import { useOpened } from '../../ui/useOpened';
import { Stale } from '../../ui/Stale';
import { Copies } from './Copies';
import { Damaged } from './Damaged';
import { upper } from '../../drawings/words';
import { Notice, Trouble } from '../../ui/Notice';
import { useRecord } from '../../ui/useRecord';
import { useUnsaved } from '../../ui/useUnsaved';

const schools: [HeightSchool, string, string][] = [
  ['saw', t`By saw type`, t`Gullets clear on a table saw, just through with a circular saw.`],
  [
    'proud',
    t`Just above the stock`,
    t`Little blade is exposed. A longer arc makes thinner chips and more heat.`,
  ],
  ['gullets', t`Gullets clear`, t`The gullets clear the stock, so chips escape and teeth stay cooler.`],
  ['full', t`Full`, t`The shortest path through the wood, but more blade is exposed.`],
];
const habits: [number, string, string][] = [
  [0, t`Change freely`, t`Use the best blade for every cut.`],
  [3, t`In between`, t`Change when it clearly improves the cut.`],
  [12, t`Keep one blade on`, t`Change only when the cut improves a lot.`],
];

export function ShopPage() {
  const shop = useShop();
  const { at, now, reopen } = useOpened(shop.data);
  const [saved, setSaved] = useState(false);
  if (!at) return <Arriving title={t`Shop settings`} of={[shop]} rows={4} />;
  return (
    <Form
      key={at.version}
      shop={at}
      now={now}
      onReopen={reopen}
      saved={saved}
      onSaved={(s) => {
        reopen(s);
        setSaved(true);
      }}
    />
  );
}

/** All zones that the browser knows, with the one that is set, whatever it is. */
const zones = (set: string | undefined) =>
  [...new Set([...Intl.supportedValuesOf('timeZone'), ...(set ? [set] : [])])].sort();

const mending: [number, string, string][] = [
  [0.5, t`Quick`, t`You have a drum sander or planer`],
  [1, t`As usual`, t`You use a scraper and a sanding block`],
  [2, t`Slow`, t`By hand, or to a high standard`],
];

const typed = [
  'name',
  'change_minutes',
  'height_school',
  'learning',
  'sharpening_price',
  'rework',
  'time_zone',
] as const satisfies (keyof ShopInput)[];

interface FormProps {
  shop: Shop;
  now: Shop | undefined;
  saved: boolean;
  onReopen: (s: Shop) => void;
  onSaved: (s: Shop) => void;
}

function Form({ shop, now, saved, onReopen, onSaved }: FormProps) {
  const { units } = usePreferences();
  const owner = useOwner();
  const typing = useRecord<ShopInput>(pick(shop, typed), 'ShopInput');
  const { input, set } = typing;
  const [version, setVersion] = useState(shop.version);
  const change = useChangeShop();
  const unsaved = useUnsaved(typing.changed);
  const stale = change.error instanceof ProblemError && change.error.status === 412;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 860 }}>
      <Typography variant="h1">{t`Shop settings`}</Typography>
      {!owner && <Notice kind="said" sx={{ my: 1 }}>{t`Only an owner can change this.`}</Notice>}
      {owner && <Damaged />}
      {unsaved.question}
      {(stale || (now && now.version !== version)) && !change.isPending && !change.isSuccess && (
        <Stale
          what={t`shop`}
          units={units}
          mine={input}
          theirs={now ? pick(now, typed) : {}}
          onTheirs={() => now && onReopen(now)}
          onMine={() => {
            if (now) setVersion(now.version);
            change.reset();
          }}
        />
      )}
      {change.error && !stale && <Trouble>{change.error.message}</Trouble>}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          // Not a callback of the mutation: the form begins anew with what was saved.
          void change.mutateAsync({ version, body: input }).then(onSaved, () => undefined);
        }}
      >
        <Box sx={{ maxWidth: 420, my: 2 }}>
          <LineField
            label={t`Name`}
            value={input.name}
            most={80}
            onText={(name) => set({ name })}
            problem={typing.problem('name')}
          />
        </Box>
        <TextField
          select
          label={t`Time zone`}
          size="small"
          value={input.time_zone ?? ''}
          onChange={(e) => set({ time_zone: e.target.value || undefined })}
          slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
          sx={{ width: { xs: '100%', sm: 300 }, mb: 3, display: 'block', '& > div': { width: '100%' } }}
        >
          <option value="">{t`the server's time zone`}</option>
          {zones(input.time_zone).map((z) => (
            <option key={z} value={z}>
              {z.replaceAll('_', ' ')}
            </option>
          ))}
        </TextField>
        <Choices
          title={t`Changing blades`}
          why={t`Corte counts this when it ranks blades and shows for each cut whether a change pays off.`}
          value={input.change_minutes}
          choices={habits}
          onChoose={(change_minutes) => set({ change_minutes })}
        />
        <Box sx={{ width: 200, mt: 1.5 }}>
          <NumberField
            label={t`Time to change a blade`}
            unit={t`min`}
            value={input.change_minutes}
            onNumber={(v) => set({ change_minutes: v ?? 0 })}
            problem={typing.problem('change_minutes')}
          />
        </Box>
        <Box sx={{ mt: 3 }}>
          <Choices
            title={t`Height and depth`}
            why={t`Suggested first. The others are one tap away.`}
            value={input.height_school}
            choices={schools}
            onChoose={(height_school) => set({ height_school })}
          />
        </Box>
        <Box sx={{ width: 200, mt: 3 }}>
          <NumberField
            label={t`Cost of one sharpening`}
            value={input.sharpening_price || undefined}
            hint={t`Your currency`}
            onNumber={(v) => set({ sharpening_price: v ?? 0 })}
            problem={typing.problem('sharpening_price')}
          />
        </Box>
        <Box sx={{ mt: 3 }}>
          <Choices
            title={t`Rework`}
            why={t`How long you need to sand, scrape or trim. Corte counts it when it compares blades, heights and changes.`}
            value={input.rework}
            choices={mending}
            onChoose={(rework) => set({ rework })}
          />
        </Box>
        <Typography variant="h2" sx={{ mt: 3 }}>{t`Learning`}</Typography>
        <CheckField
          label={t`Learn from my cuts`}
          value={input.learning}
          onCheck={(learning) => set({ learning })}
        />
        <Lessons />
        <Button
          type="submit"
          variant="contained"
          sx={{ mt: 3 }}
          disabled={change.isPending || !typing.bounded || !owner}
        >
          {t`Save`}
        </Button>
        <Box role="status" sx={{ mt: 1 }}>
          {saved && !change.isPending && 'Saved.'}
        </Box>
      </form>
      {owner && <Copies />}
      <Box sx={{ mt: 4 }}>
        <Link to="/licenses">{t`Licenses of Corte and its parts`}</Link>
      </Box>
    </Box>
  );
}

/** What the cuts of each material have taught, large or small. */
function Lessons() {
  const lessons = useLessons();
  const told = lessons.data?.filter((l) => l.says.length > 0) ?? [];
  return (
    <Box>
      {lessons.data?.length === 0 && <Box>{t`Nothing learned yet. Log some cuts first.`}</Box>}
      <Box component="ul" aria-label={t`Learned from your cuts`} sx={{ m: 0, pl: 2.5 }}>
        {told
          .flatMap((l) => l.says)
          .map((s) => (
            <li key={s}>{upper(s)}.</li>
          ))}
      </Box>
      {lessons.data && lessons.data.length > told.length && (
        <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
          {t`Table value:`}{' '}
          {lessons.data
            .filter((l) => l.says.length === 0)
            .map((l) => `${l.material_name} (${l.cuts})`)
            .join(', ')}
          .
        </Box>
      )}
    </Box>
  );
}

function Choices<T extends string | number>({
  title,
  why,
  value,
  choices,
  onChoose,
}: {
  title: string;
  why: string;
  value: T;
  choices: [T, string, string][];
  onChoose: (v: T) => void;
}) {
  return (
    <Box role="radiogroup" aria-label={title}>
      <Typography variant="h2">{title}</Typography>
      <Box sx={{ color: 'text.secondary', mb: 1 }}>{why}</Box>
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: 'repeat(auto-fit, minmax(190px, 1fr))' }}>
        {choices.map(([v, name, says]) => (
          <ButtonBase
            key={v}
            role="radio"
            aria-checked={v === value}
            onClick={() => onChoose(v)}
            sx={{
              display: 'block',
              textAlign: 'left',
              p: 1.5,
              border: '1.5px solid',
              borderColor: v === value ? 'text.primary' : 'divider',
              bgcolor: v === value ? 'background.paper' : 'transparent',
              boxShadow: v === value ? 'inset 5px 0 0 var(--mui-palette-text-primary)' : 'none',
              borderRadius: 1,
            }}
          >
            <Box sx={{ fontWeight: 700 }}>{name}</Box>
            <Box sx={{ fontSize: 14.5, lineHeight: 1.3 }}>{says}</Box>
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}
