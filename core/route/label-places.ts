/** A name to be written beside a spot of a drawing, in pixels: where the spot is, which others would do as well, and how wide the written name is. */
export type Label = { at: Spot; also?: readonly Spot[]; width: number; sort: LabelSort }
type Spot = { x: number; y: number }
/** A name of what stands at a joint, or of a pathway along its middle. */
export type LabelSort = 'joint' | 'pathway'
/** Where a name goes from its spot: the start, the middle or the end of it, on this base line. */
export type LabelPlace = { dx: number; dy: number; anchor: 'start' | 'middle' | 'end' }

/** How high a name is written above its base line, and how deep below. */
const ABOVE = 12
const BELOW = 4
/** Half of the mark of a joint. */
const MARK = 7

/** Where names may go, the best first. */
const places: Record<LabelSort, readonly LabelPlace[]> = {
  joint: [
    { dx: -7, dy: -11, anchor: 'start' },
    { dx: -7, dy: 22, anchor: 'start' },
    { dx: 12, dy: 4, anchor: 'start' },
    { dx: -12, dy: 4, anchor: 'end' },
    { dx: 7, dy: -11, anchor: 'end' },
    { dx: 7, dy: 22, anchor: 'end' },
  ],
  pathway: [
    { dx: 0, dy: -6, anchor: 'middle' },
    { dx: 0, dy: 16, anchor: 'middle' },
    { dx: 8, dy: 4, anchor: 'start' },
    { dx: -8, dy: 4, anchor: 'end' },
  ],
}

/** Where one name may go, the best first: round its spot, then round the others. */
const placesOf = ({ at, also = [], sort }: Label): LabelPlace[] =>
  [at, ...also].flatMap(({ x, y }) =>
    places[sort].map(({ dx, dy, anchor }) => ({ dx: dx + x - at.x, dy: dy + y - at.y, anchor })),
  )

export type LabelBox = { left: number; right: number; top: number; bottom: number }

/** What a name covers at one of its places. */
export function boxOf({ at, width }: Label, { dx, dy, anchor }: LabelPlace): LabelBox {
  const start = at.x + dx - (anchor === 'start' ? 0 : anchor === 'middle' ? width / 2 : width)
  return { left: start, right: start + width, top: at.y + dy - ABOVE, bottom: at.y + dy + BELOW }
}

const cover = (one: LabelBox, other: LabelBox): boolean =>
  one.left < other.right && other.left < one.right && one.top < other.bottom && other.top < one.bottom

/**
 * Where each name goes, so that none covers another or one of the marks, or leaves the drawing: the first come first, those of joints before those of
 * pathways. Null where there is no room for it.
 */
export function labelPlaces(
  labels: readonly Label[],
  marks: readonly Label['at'][],
  size: { width: number; height: number },
): (LabelPlace | null)[] {
  const found: (LabelPlace | null)[] = labels.map(() => null)
  const taken = boxesNear()
  for (const { x, y } of marks) taken.add({ left: x - MARK, right: x + MARK, top: y - MARK, bottom: y + MARK })
  for (const sort of ['joint', 'pathway'] as const)
    for (const [index, label] of labels.entries()) {
      if (label.sort !== sort) continue
      const free = placesOf(label).find((place) => {
        const box = boxOf(label, place)
        const within = box.left >= 0 && box.right <= size.width && box.top >= 0 && box.bottom <= size.height
        return within && !taken.covers(box)
      })
      if (!free) continue
      taken.add(boxOf(label, free))
      found[index] = free
    }
  return found
}

const CELL = 120

/** Boxes by the cells of the drawing that they lie in, so that each is compared with its neighbours alone. */
function boxesNear() {
  const cells = new Map<string, LabelBox[]>()
  const cellsOf = (box: LabelBox): string[] => {
    const keys: string[] = []
    for (let x = Math.floor(box.left / CELL); x <= Math.floor(box.right / CELL); x += 1)
      for (let y = Math.floor(box.top / CELL); y <= Math.floor(box.bottom / CELL); y += 1) keys.push(`${x} ${y}`)
    return keys
  }
  return {
    add(box: LabelBox): void {
      for (const key of cellsOf(box)) cells.set(key, [...(cells.get(key) ?? []), box])
    },
    covers: (box: LabelBox): boolean => cellsOf(box).some((key) => cells.get(key)?.some((other) => cover(box, other))),
  }
}
