<!-- Effort as two lines under the strip, in the same proportion: the left hand solid with dots, the right dashed with triangles. -->
<script lang="ts">
  import {
    Chart,
    Legend,
    LinearScale,
    LineController,
    LineElement,
    PointElement,
    Tooltip,
    type TooltipItem,
  } from 'chart.js';
  import type { SurveyedBar } from '$core/survey/survey';
  import type { Measure } from '$core/score/model';

  interface Props {
    bars: readonly SurveyedBar[];
    measures: readonly Measure[];
    select: (bar: number) => void;
  }
  let { bars, measures, select }: Props = $props();
  let canvas: HTMLCanvasElement;

  /** Of the names before the strip, with the gap behind them: so that bars stand under bars. */
  const NAMES_PX = 76;
  const FONT = { family: "'Instrument Sans Variable', sans-serif", size: 12 };

  Chart.register(Legend, LinearScale, LineController, LineElement, PointElement, Tooltip);

  const middle = ({ startTicks, durationTicks }: Measure) => startTicks + durationTicks / 2;
  const end = $derived(
    measures.reduce((ticks, one) => Math.max(ticks, one.startTicks + one.durationTicks), 1),
  );
  const line = (of: 'left' | 'right') =>
    bars.map((bar, k) => ({ x: middle(measures[k]!), y: (bar.effort?.[of] ?? 0) / 10 }));

  $effect(() => {
    const style = getComputedStyle(canvas);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const ink = style.color;
    const fontFamily = style.fontFamily || FONT.family;
    const font = { ...FONT, family: fontFamily };
    const chart = new Chart(canvas, {
      type: 'line',
      data: {
        datasets: [
          {
            label: 'effort of the left hand',
            data: line('left'),
            borderColor: colour('--color-primary'),
            backgroundColor: colour('--color-primary'),
            pointStyle: 'circle',
            pointRadius: bars.length > 80 ? 2 : 4,
            borderWidth: 2,
          },
          {
            label: 'of the right hand',
            data: line('right'),
            borderColor: colour('--color-accent'),
            backgroundColor: colour('--color-accent'),
            borderDash: [5, 4],
            pointStyle: 'triangle',
            pointRadius: bars.length > 80 ? 2 : 5,
            borderWidth: 2,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        layout: { autoPadding: false },
        interaction: { mode: 'nearest', axis: 'x', intersect: false },
        onClick: (_event, found) => found[0] && select(found[0].index),
        scales: {
          x: { type: 'linear', min: 0, max: end, display: false },
          y: {
            beginAtZero: true,
            ticks: { color: ink, font, maxTicksLimit: 5 },
            afterFit: (scale) => void (scale.width = NAMES_PX),
          },
        },
        plugins: {
          legend: { align: 'start', labels: { color: ink, font, usePointStyle: true, boxHeight: 7 } },
          tooltip: {
            titleFont: font,
            bodyFont: font,
            callbacks: {
              title: (items: TooltipItem<'line'>[]) => `Bar ${bars[items[0]!.dataIndex]!.number}`,
            },
          },
        },
      },
    });
    return () => chart.destroy();
  });
</script>

<div class="h-44" role="img" aria-label="Effort of each bar in points, left and right hand">
  <canvas bind:this={canvas}></canvas>
</div>
