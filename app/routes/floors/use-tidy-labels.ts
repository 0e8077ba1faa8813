import { type RefObject, useEffect, useRef } from 'react'
import { type Label, type LabelSort, labelPlaces } from '../../../core/route/label-places'
import { MAP_HEIGHT, MAP_WIDTH, type View } from './floor-view'

/** About how wide a letter is written in the type of each sort of name. */
const LETTER: Record<LabelSort, number> = { joint: 7, pathway: 5.9 }
/** More names than this are not looked at; so many are never read at once. */
const MOST = 600

/**
 * Keeps the names on a drawing from covering each other, whenever the view or what is drawn changes: each goes where there is room, and is left out where
 * there is none. Answers what is to be called when the view has changed.
 */
export function useTidyLabels(svg: RefObject<SVGSVGElement | null>, view: RefObject<View>): () => void {
  const waiting = useRef(0)
  const tidy = () => {
    cancelAnimationFrame(waiting.current)
    waiting.current = requestAnimationFrame(() => {
      if (svg.current) placeNames(svg.current, view.current)
    })
  }
  useEffect(() => {
    tidy()
    return () => cancelAnimationFrame(waiting.current)
  })
  return tidy
}

function placeNames(svg: SVGSVGElement, view: View): void {
  // the drawing is as wide as its frame, or as high where that is less
  const scale = Math.min(svg.clientWidth / MAP_WIDTH, svg.clientHeight / MAP_HEIGHT) || 1
  const names = [...svg.querySelectorAll<SVGTextElement>('text[data-name]')].slice(0, MOST)
  const onPage = (metres = '0 0'): Label['at'] => {
    const [x = 0, y = 0] = metres.split(' ').map(Number)
    return { x: (x * view.k + view.x) * scale, y: (y * view.k + view.y) * scale }
  }
  const marks = [...svg.querySelectorAll<SVGElement>('[data-mark]')].slice(0, MOST)
  const labels = names.map((name): Label => {
    const sort: LabelSort = name.dataset.name === 'joint' ? 'joint' : 'pathway'
    return {
      at: onPage(name.dataset.at),
      also: name.dataset.also?.split(',').map(onPage) ?? [],
      width: (name.textContent?.length ?? 0) * LETTER[sort],
      sort,
    }
  })
  const found = labelPlaces(
    labels,
    marks.map(({ dataset }) => onPage(dataset.mark)),
    { width: MAP_WIDTH * scale, height: MAP_HEIGHT * scale },
  )
  for (const [at, place] of found.entries()) {
    const name = names[at]
    if (!name) continue
    name.toggleAttribute('data-no-room', place === null)
    if (!place) continue
    name.setAttribute('x', String(place.dx))
    name.setAttribute('y', String(place.dy))
    name.setAttribute('text-anchor', place.anchor)
  }
}
