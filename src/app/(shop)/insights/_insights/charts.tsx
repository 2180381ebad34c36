'use client';

import {
  Bar,
  BarChart,
  CartesianGrid,
  ComposedChart,
  Legend,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { InsightTable } from '@/core/insight/table';
import { cellOf, numberOf, written } from './figure';

const ink = 'var(--color-base-content)';
const quiet = 'var(--color-base-300)';
const series = [
  'var(--color-primary)',
  'var(--color-warning)',
  'var(--color-info)',
  'var(--color-error)',
  'var(--color-success)',
  'var(--color-secondary)',
];
const dashes = ['', '6 3', '2 3', '9 3 2 3', '4 4', '1 4'];
const look = { fontSize: 12, fill: ink } as const;
const box = { background: 'var(--color-base-100)', border: `1px solid ${quiet}`, color: ink, fontSize: 12 } as const;

function Frame({ label, height = 200, children }: { label: string; height?: number; children: React.ReactElement }) {
  return (
    // The table below says the same in figures.
    <div role="img" aria-label={label} className="my-2" style={{ height }}>
      <ResponsiveContainer width="100%" height="100%">
        {children}
      </ResponsiveContainer>
    </div>
  );
}

const short = (currency: string) => (minor: number) =>
  new Intl.NumberFormat('en', { style: 'currency', currency, notation: 'compact', maximumFractionDigits: 1 }).format(
    minor / 100,
  );
const amount = (currency: string) => (value: unknown) => written(Number(value), 'money', currency);

type Drawn = { table: InsightTable; currency: string };

/** The net of each step, beside that of what it is compared with. */
export function TimeChart({ table, currency }: Drawn) {
  const data = table.rows.map((row) => ({
    step: cellOf(table, row, 'step'),
    net: numberOf(table, row, 'net'),
    before: cellOf(table, row, 'before'),
  }));
  const isCompared = data.some((one) => one.before !== null);
  return (
    <Frame label="Net over time">
      <ComposedChart data={data} margin={{ top: 6, right: 8, bottom: 0, left: 8 }}>
        <CartesianGrid stroke={quiet} vertical={false} />
        <XAxis dataKey="step" tick={look} tickLine={false} minTickGap={24} />
        <YAxis tick={look} tickFormatter={short(currency)} tickLine={false} axisLine={false} width={64} />
        <ReferenceLine y={0} stroke={ink} />
        <Tooltip contentStyle={box} formatter={amount(currency)} cursor={{ fill: quiet, opacity: 0.4 }} />
        <Legend wrapperStyle={{ fontSize: 12 }} />
        <Bar dataKey="net" name="Net" fill={series[0]} isAnimationActive={false} maxBarSize={34} />
        {isCompared ? (
          <Line
            dataKey="before"
            name="Net before"
            stroke={series[1]}
            strokeDasharray="5 3"
            dot={false}
            isAnimationActive={false}
          />
        ) : null}
      </ComposedChart>
    </Frame>
  );
}

/** The money in the stock, by its age. */
export function AgeChart({ table, currency }: Drawn) {
  const data = table.rows.map((row) => ({ age: cellOf(table, row, 'age'), tied: numberOf(table, row, 'tied') }));
  return (
    <Frame label="Money in the stock by its age" height={180}>
      <BarChart data={data} layout="vertical" margin={{ top: 6, right: 16, bottom: 0, left: 8 }}>
        <CartesianGrid stroke={quiet} horizontal={false} />
        <XAxis type="number" tick={look} tickFormatter={short(currency)} tickLine={false} />
        <YAxis type="category" dataKey="age" tick={look} width={150} tickLine={false} axisLine={false} />
        <Tooltip contentStyle={box} formatter={amount(currency)} cursor={{ fill: quiet, opacity: 0.4 }} />
        <Bar dataKey="tied" name="Money in it" fill={series[0]} isAnimationActive={false} maxBarSize={20} />
      </BarChart>
    </Frame>
  );
}

/** What became of each month's purchases. */
export function CohortChart({ table }: Drawn) {
  const data = table.rows.map((row) => ({
    month: cellOf(table, row, 'month'),
    sold: numberOf(table, row, 'sold'),
    gone: numberOf(table, row, 'gone'),
    here: numberOf(table, row, 'here'),
  }));
  const bars = [
    ['sold', 'Sold', series[0]],
    ['gone', 'Gone unsold', series[3]],
    ['here', 'Here', quiet],
  ] as const;
  return (
    <Frame label="What became of each month’s purchases">
      <BarChart data={data} margin={{ top: 6, right: 8, bottom: 0, left: 8 }}>
        <CartesianGrid stroke={quiet} vertical={false} />
        <XAxis dataKey="month" tick={look} tickLine={false} minTickGap={24} />
        <YAxis tick={look} tickLine={false} axisLine={false} width={48} allowDecimals={false} />
        <Tooltip contentStyle={box} cursor={{ fill: quiet, opacity: 0.4 }} />
        <Legend wrapperStyle={{ fontSize: 12 }} />
        {bars.map(([id, name, fill]) => (
          <Bar key={id} dataKey={id} name={name} fill={fill} stackId="a" isAnimationActive={false} maxBarSize={34} />
        ))}
      </BarChart>
    </Frame>
  );
}

const mostCurves = 6;

/** The share that is not sold yet, by days, for the largest groups. */
export function SpeedChart({ table }: Drawn) {
  const groups = [...new Set(table.rows.map((row) => String(cellOf(table, row, 'group'))))].slice(0, mostCurves);
  const days = [...new Set(table.rows.map((row) => numberOf(table, row, 'day')))].sort((a, b) => a - b);
  const steps = new Map<number, Record<string, number>>(days.map((day) => [day, { day }]));
  for (const row of table.rows) {
    const point = steps.get(numberOf(table, row, 'day'));
    if (point) point[String(cellOf(table, row, 'group'))] = numberOf(table, row, 'unsold') / 100;
  }
  return (
    <Frame label="Share not sold yet by days, for the largest groups" height={260}>
      <LineChart data={[...steps.values()]} margin={{ top: 6, right: 16, bottom: 4, left: 8 }}>
        <CartesianGrid stroke={quiet} />
        <XAxis dataKey="day" type="number" tick={look} tickLine={false} unit=" d" domain={[0, 'dataMax']} />
        <YAxis tick={look} tickLine={false} axisLine={false} unit=" %" domain={[0, 100]} width={56} />
        <Tooltip contentStyle={box} formatter={(value) => `${Number(value).toFixed(0)} % not sold`} />
        <Legend wrapperStyle={{ fontSize: 12 }} />
        {groups.map((group, at) => (
          <Line
            key={group}
            type="stepAfter"
            dataKey={(point: Record<string, number>) => point[group]}
            name={group}
            stroke={series[at]}
            strokeDasharray={dashes[at]}
            strokeWidth={1.8}
            dot={false}
            connectNulls
            isAnimationActive={false}
          />
        ))}
      </LineChart>
    </Frame>
  );
}

/** What earned most, as bars. */
export function BestChart({ table, currency }: Drawn) {
  const data = table.rows.slice(0, 10).map((row) => ({
    name: String(cellOf(table, row, 'name')).slice(0, 40),
    net: numberOf(table, row, 'net'),
  }));
  return (
    <Frame label="Net of what earned most" height={Math.max(120, 40 + data.length * 24)}>
      <BarChart data={data} layout="vertical" margin={{ top: 6, right: 16, bottom: 0, left: 8 }}>
        <CartesianGrid stroke={quiet} horizontal={false} />
        <XAxis type="number" tick={look} tickFormatter={short(currency)} tickLine={false} />
        <YAxis type="category" dataKey="name" tick={look} width={250} tickLine={false} axisLine={false} interval={0} />
        <Tooltip contentStyle={box} formatter={amount(currency)} cursor={{ fill: quiet, opacity: 0.4 }} />
        <Bar dataKey="net" name="Net" fill={series[0]} isAnimationActive={false} maxBarSize={16} />
      </BarChart>
    </Frame>
  );
}

/** Between which bounds each effect lies; one means that nothing changed. */
export function EffectChart({ table }: Drawn) {
  const data = table.rows
    .filter((row) => cellOf(table, row, 'times') !== null)
    .map((row) => ({
      deed: cellOf(table, row, 'deed'),
      range: [numberOf(table, row, 'least') / 100, numberOf(table, row, 'most') / 100],
    }));
  if (data.length === 0) return null;
  return (
    <Frame label="Between which bounds each effect lies" height={60 + data.length * 36}>
      <BarChart data={data} layout="vertical" margin={{ top: 6, right: 16, bottom: 0, left: 8 }}>
        <CartesianGrid stroke={quiet} horizontal={false} />
        <XAxis type="number" tick={look} tickLine={false} unit=" ×" domain={[0, 'auto']} />
        <YAxis type="category" dataKey="deed" tick={look} width={170} tickLine={false} axisLine={false} />
        <ReferenceLine x={1} stroke={ink} />
        <Tooltip contentStyle={box} cursor={{ fill: quiet, opacity: 0.4 }} />
        <Bar dataKey="range" name="Times as many, between" fill={series[0]} isAnimationActive={false} maxBarSize={14} />
      </BarChart>
    </Frame>
  );
}
