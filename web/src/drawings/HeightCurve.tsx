/** Scorch, splinters and push over every height that goes through, with the height that is set as a line across. */
import { wordOf } from './codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { ChartsReferenceLine } from '@mui/x-charts/ChartsReferenceLine';
import { LineChart, lineClasses } from '@mui/x-charts/LineChart';
import type { Setting, Units } from '../api/types';
import { formatSetting, trim } from '../measure/format';
import { ink } from './ink';
import { legendLine } from './legendLine';

interface Props {
  settings: Setting[]; // of one blade, at every step of height
  at: number; // the height that is set, mm
  units: Units;
  push: string; // what the push is called on this saw
  onHeight: (mm: number) => void;
}

const MOST = 150; // per cent: further up, nothing more is learnt

export function HeightCurve({ settings, at, units, push, onHeight }: Props) {
  const through = settings.filter((s) => s.through);
  if (through.length < 3) return null;
  const inch = units === 'in';
  const x = (mm: number) => (inch ? mm / 25.4 : mm);
  const percent = (v: number) => Math.min(MOST, 100 * v);
  const exit = through[0]!.exit;
  const series = [
    {
      id: 'burn',
      label: t`burn risk`,
      data: through.map((s) => percent(s.burn)),
      color: ink.scorch,
      dash: '0',
    },
    ...(exit.matters
      ? [
          {
            id: 'exit',
            label: t`tear-out, ${wordOf(exit.name)}, share of what this finish allows`,
            data: through.map((s) => percent(s.exit.of_limit)),
            color: ink.ink,
            dash: '7 4',
          },
        ]
      : []),
    { id: 'push', label: push, data: through.map((s) => percent(s.push_share)), color: ink.ink, dash: '2 4' },
  ];
  const here = through.reduce((a, b) => (Math.abs(b.height_mm - at) < Math.abs(a.height_mm - at) ? b : a));
  return (
    <Box
      role="group"
      aria-label={t`By height: ${series.map((s) => `${s.label} ${trim(s.data[through.indexOf(here)]!, 0)} %`).join(', ')} at ${formatSetting(at, units)}`}
      sx={{
        height: '100%',
        ...Object.fromEntries(
          series.map((s) => [
            `& .${lineClasses.line}[data-series='${s.id}']`,
            { strokeDasharray: s.dash, strokeWidth: 2 },
          ]),
        ),
      }}
    >
      <LineChart
        skipAnimation
        margin={{ top: 8, right: 16, bottom: 0, left: 0 }}
        xAxis={[
          {
            id: 'height',
            data: through.map((s) => x(s.height_mm)),
            min: x(through[0]!.height_mm),
            max: x(through.at(-1)!.height_mm),
            label: inch ? t`height, in` : t`height, mm`,
            height: 58,
            valueFormatter: (v: number, c: { location: string }) =>
              c.location === 'tick' ? trim(v, 1) : formatSetting(inch ? v * 25.4 : v, units),
          },
        ]}
        yAxis={[
          {
            min: 0,
            max: Math.max(100, ...series.flatMap((s) => s.data)),
            width: 58,
            valueFormatter: (v: number) => `${v} %`,
          },
        ]}
        series={series.map(({ id, label, data, color, dash }) => ({
          id,
          label,
          data,
          color,
          showMark: false,
          curve: 'linear' as const,
          labelMarkType: legendLine(dash),
          valueFormatter: (v: number | null) => (v === null ? '' : `${trim(v, 0)} %`),
        }))}
        slotProps={{
          legend: { direction: 'horizontal', position: { vertical: 'top', horizontal: 'start' } },
        }}
        onAxisClick={(_, data) => data && onHeight(through[data.dataIndex]!.height_mm)}
      >
        <ChartsReferenceLine
          x={x(here.height_mm)}
          lineStyle={{ stroke: 'var(--mui-palette-primary-main)', strokeWidth: 3 }}
        />
      </LineChart>
    </Box>
  );
}
