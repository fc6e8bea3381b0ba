<script lang="ts">
  import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
  import type { SurveyedBar } from '$core/survey/survey';

  let { bars }: { bars: readonly SurveyedBar[] } = $props();
  let canvas: HTMLCanvasElement;

  Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);

  $effect(() => {
    const style = getComputedStyle(canvas);
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const ink = style.color;
    const chart = new Chart(canvas, {
      type: 'bar',
      data: {
        labels: bars.map((bar) => bar.number),
        datasets: [
          {
            label: 'left hand',
            data: bars.map((bar) => (bar.effort?.left ?? 0) / 10),
            backgroundColor: colour('--color-primary'),
          },
          {
            label: 'right hand',
            data: bars.map((bar) => (bar.effort?.right ?? 0) / 10),
            backgroundColor: colour('--color-accent'),
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        scales: {
          x: {
            stacked: true,
            ticks: { color: ink },
            grid: { display: false },
            title: { display: true, text: 'bar', color: ink },
          },
          y: {
            stacked: true,
            ticks: { color: ink },
            title: { display: true, text: 'effort (points)', color: ink },
          },
        },
        plugins: { legend: { labels: { color: ink } } },
      },
    });
    return () => chart.destroy();
  });
</script>

<div class="h-56" role="img" aria-label="Effort of each bar, left and right hand">
  <canvas bind:this={canvas}></canvas>
</div>
