import { Heading, Text } from '@chakra-ui/react'
import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { arrayMove, SortableContext, useSortable } from '@dnd-kit/sortable'
import { useFetcher } from 'react-router'
import { type Need, needLabel } from '../../../core/vocabulary/need'
import { QuietButton } from '../../ui/controls'
import { newChangeId } from '../../ui/own-changes'
import { useSite } from '../../ui/site-context'
import { useSortSensors } from '../../ui/use-sort-sensors'
import look from './dock.module.css'

/** Which picture comes first: drag a picture, move it with the keys of its handle, or press up and down. Saved as it is let go. */
export function ServingOrder({ needs }: { needs: readonly Need[] }) {
  const { place } = useSite()
  const pictures = needs.filter(({ kind }) => kind === 'picture')
  const fetcher = useFetcher()
  const sensors = useSortSensors()
  if (pictures.length < 2) return null
  const ids = pictures.map(({ id }) => id)
  const put = (from: number, to: number) => {
    if (from === to || to < 0 || to >= ids.length) return
    const order = arrayMove(ids, from, to).join(' ')
    fetcher.submit({ order, base: String(place), change: newChangeId() }, { method: 'post' })
  }
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) put(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)))
  }
  return (
    <section aria-labelledby="order-heading" aria-busy={fetcher.state !== 'idle'}>
      <Heading as="h2" size="md" mb="1" id="order-heading">
        Which picture comes first
      </Heading>
      <Text mb="2" fontSize="sm" color="quiet">
        Pictures hold what they need in this order. Drag, or use the buttons; it can be undone in the history.
      </Text>
      <DndContext id="serving-order" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={ids}>
          <ol className={look.order}>
            {pictures.map((need, at) => (
              <Served
                key={need.id}
                need={need}
                up={at > 0 ? () => put(at, at - 1) : null}
                down={at < ids.length - 1 ? () => put(at, at + 1) : null}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
    </section>
  )
}

function Served({ need, up, down }: { need: Need; up: (() => void) | null; down: (() => void) | null }) {
  const { index } = useSite()
  const { attributes, listeners, setNodeRef, transform } = useSortable({ id: need.id })
  const label = needLabel(need, index.devices)
  return (
    <li
      ref={setNodeRef}
      className={look.served}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <button type="button" className={look.handle} aria-label={`Move the ${label}`} {...attributes} {...listeners}>
        ::
      </button>
      <span>{label}</span>
      <QuietButton type="button" small disabled={!up} onClick={up ?? undefined} aria-label={`${label} earlier`}>
        up
      </QuietButton>
      <QuietButton type="button" small disabled={!down} onClick={down ?? undefined} aria-label={`${label} later`}>
        down
      </QuietButton>
    </li>
  )
}
