import { LineChart as Lines } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { init, use as bring, type ComposeOption } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import type { LineSeriesOption } from 'echarts/charts';
import type { GridComponentOption, TooltipComponentOption } from 'echarts/components';
import { useEffect, useRef } from 'react';

bring([Lines, GridComponent, TooltipComponent, AriaComponent, SVGRenderer]);
type Option = ComposeOption<LineSeriesOption | GridComponentOption | TooltipComponentOption>;

export interface ChartLine {
  readonly name: string;
  /** day and value, in the order of time */
  readonly points: readonly (readonly [on: string, value: number])[];
  /** drawn in dashes, without points: what should be */
  readonly isAim?: boolean;
}

interface LineChartProps {
  /** what it shows, for those who do not see it */
  readonly label: string;
  readonly lines: readonly ChartLine[];
  readonly height?: number;
}

/** A colour of the page as it is now, light or dark. */
const colour = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Values over time. What it tells must also stand in words beside it. */
export function LineChart({ label, lines, height = 180 }: LineChartProps) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = place.current;
    if (!element) return undefined;
    const chart = init(element, undefined, { renderer: 'svg' });
    const draw = () => {
      const [ink, muted, line] = [colour('--pine'), colour('--muted'), colour('--line')];
      chart.setOption({
        animation: !matchMedia('(prefers-reduced-motion: reduce)').matches,
        grid: { left: 4, right: 16, top: 12, bottom: 8, outerBoundsMode: 'same', outerBoundsContain: 'axisLabel' },
        textStyle: { fontFamily: getComputedStyle(element).fontFamily },
        tooltip: { trigger: 'axis' },
        xAxis: {
          type: 'time',
          axisLabel: { color: muted, hideOverlap: true, formatter: { year: '{yyyy}', month: '{MMM}', day: '{d} {MMM}' } },
          axisLine: { lineStyle: { color: line } },
          splitLine: { show: false },
        },
        yAxis: { type: 'value', scale: true, axisLabel: { color: muted }, splitLine: { lineStyle: { color: line } }, splitNumber: 3 },
        series: lines.map(({ name, points, isAim = false }) => ({
          type: 'line',
          name,
          data: points.map(([on, value]) => [on, value]),
          showSymbol: !isAim,
          symbolSize: 7,
          lineStyle: { color: isAim ? muted : ink, type: isAim ? 'dashed' : 'solid', width: isAim ? 1 : 2 },
          itemStyle: { color: isAim ? muted : ink },
        })),
      } satisfies Option);
    };
    draw();
    const scheme = matchMedia('(prefers-color-scheme: dark)');
    scheme.addEventListener('change', draw);
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(element);
    return () => {
      scheme.removeEventListener('change', draw);
      watch.disconnect();
      chart.dispose();
    };
  }, [lines]);
  return <div ref={place} role="img" aria-label={label} style={{ height }} />;
}
