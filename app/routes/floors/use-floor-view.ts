import { select } from 'd3-selection'
import { type ZoomBehavior, zoom, zoomIdentity } from 'd3-zoom'
import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef } from 'react'
import { MAP_WIDTH, type View } from './floor-view'

/** So far one can go in and out, as shares of the view that shows all of the floor. */
const FURTHEST = 0.25
const NEAREST = 40
const STEP = 1.5

/**
 * Pans and zooms a drawing by hand, wheel and keys. The view is put into the drawing itself and not into the state of the page: nothing is drawn anew but
 * by the browser. What has `data-hold` is held by other hands.
 */
export function useFloorView(
  svg: RefObject<SVGSVGElement | null>,
  world: RefObject<SVGGElement | null>,
  whole: View,
  changed: RefObject<() => void>,
) {
  const view = useRef<View>(whole)
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null)
  const start = useRef(whole)
  useEffect(() => {
    const element = svg.current
    if (!element) return
    const first = start.current
    const made = zoom<SVGSVGElement, unknown>()
      .scaleExtent([first.k * FURTHEST, first.k * NEAREST])
      .filter((event: Event) => !(event.target as Element).closest('[data-hold]') && !(event as MouseEvent).button)
      .on('zoom', ({ transform }: { transform: View }) => {
        view.current = transform
        world.current?.setAttribute('transform', `translate(${transform.x} ${transform.y}) scale(${transform.k})`)
        element.style.setProperty('--k', String(transform.k))
        changed.current()
      })
    behaviour.current = made
    select(element).call(made).on('dblclick.zoom', null)
    select(element).call(made.transform, zoomIdentity.translate(first.x, first.y).scale(first.k))
    return () => void select(element).on('.zoom', null)
  }, [svg, world, changed])
  // what keeps its size keeps it on a phone as well; said before much is drawn, it is drawn once
  useLayoutEffect(() => {
    const element = svg.current
    if (!element) return
    const size = () => {
      element.style.setProperty('--s', String(MAP_WIDTH / Math.max(element.clientWidth, 1)))
      changed.current()
    }
    size()
    const sized = new ResizeObserver(size)
    sized.observe(element)
    return () => sized.disconnect()
  }, [svg, changed])
  const act = useCallback(
    (how: 'in' | 'out' | 'all' | 'left' | 'right' | 'up' | 'down', all: View) => {
      const element = svg.current
      const made = behaviour.current
      if (!element || !made) return
      const chosen = select(element)
      const far = 120 / view.current.k
      if (how === 'in') chosen.call(made.scaleBy, STEP)
      else if (how === 'out') chosen.call(made.scaleBy, 1 / STEP)
      else if (how === 'all') chosen.call(made.transform, zoomIdentity.translate(all.x, all.y).scale(all.k))
      else if (how === 'left') chosen.call(made.translateBy, far, 0)
      else if (how === 'right') chosen.call(made.translateBy, -far, 0)
      else chosen.call(made.translateBy, 0, how === 'up' ? far : -far)
    },
    [svg],
  )
  return { view, act }
}
