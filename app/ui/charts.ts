import { BarChart, LineChart, ScatterChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { type EChartsCoreOption, init, use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'

use([BarChart, LineChart, ScatterChart, GridComponent, LegendComponent, TooltipComponent, AriaComponent, SVGRenderer])

/** Draws a chart into a box, keeps it as wide as the box, and draws it anew when the light changes. Answers a way to take it down. */
export function draw(box: HTMLElement, option: () => EChartsCoreOption, picked: (name: string) => void): () => void {
  const chart = init(box, null, { renderer: 'svg' })
  const put = () => chart.setOption({ animation: false, ...option() }, { notMerge: true })
  put()
  chart.on('click', ({ name }) => picked(name))
  const size = new ResizeObserver(() => chart.resize())
  size.observe(box)
  const light = new MutationObserver(put)
  light.observe(document.documentElement, { attributes: true, attributeFilter: ['class'] })
  return () => {
    size.disconnect()
    light.disconnect()
    chart.dispose()
  }
}
