import { Link as RouterLink } from 'react-router'
import type { Block } from '../../../core/handover/block'
import type { Drawing, Shape } from '../../../core/handover/drawing'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'
import { RuledTable } from '../../ui/ruled-table'
import look from './handover.module.css'

/** A piece of a book on a screen. */
export function BlockView({ block, siteId }: { block: Block; siteId: string }) {
  switch (block.sort) {
    case 'section':
      return (
        <h2 id={block.id} className={look.part}>
          {block.text}
        </h2>
      )
    case 'heading':
      return <h3 id={block.id}>{block.text}</h3>
    case 'words':
      return <p className={block.quiet && text.quiet}>{block.text}</p>
    case 'caution':
      return <Notice tone="tight">{block.text}</Notice>
    case 'list':
      return (
        <ul className={look.points}>
          {block.items.map((item) => (
            <li key={item}>{item}</li>
          ))}
        </ul>
      )
    case 'table':
      return (
        <RuledTable label={block.heads.join(', ')} columns={block.heads} cards>
          {block.rows.map((row, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row of a book is its turn
            <tr key={at}>
              {row.map((cell, column) => (
                <td key={block.heads[column]} className={text.anywhere}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </RuledTable>
      )
    case 'drawing':
      return <DrawingView drawing={block.drawing} alt={block.alt} siteId={siteId} />
    case 'cards':
      return (
        <ul className={look.cards}>
          {block.cards.map(({ title, lines, path }) => (
            <li key={path}>
              <RouterLink to={path} className={text.link}>
                {title}
              </RouterLink>
              {lines.map((line) => (
                <p key={line}>{line}</p>
              ))}
            </li>
          ))}
        </ul>
      )
    case 'page':
      return null
  }
}

/** A drawing on a screen, light on dark where the screen is. */
export function DrawingView({ drawing, alt, siteId }: { drawing: Drawing; alt: string; siteId: string }) {
  const { width, height, shapes } = drawing
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways is scrolled by keys as well
    <section className={look.drawing} aria-label={alt} tabIndex={0}>
      <svg viewBox={`0 0 ${width} ${height}`} width={width * SCREEN} role="img" aria-label={alt}>
        {shapes.map((shape, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a shape of a drawing is its turn
          <ShapeView key={at} shape={shape} siteId={siteId} />
        ))}
      </svg>
    </section>
  )
}

/** A point of paper in pixels of a screen. */
const SCREEN = 96 / 72

function ShapeView({ shape, siteId }: { shape: Shape; siteId: string }) {
  switch (shape.sort) {
    case 'line':
      return (
        <polyline
          points={shape.points.map(([x, y]) => `${x},${y}`).join(' ')}
          data-line={shape.ink}
          strokeWidth={shape.width}
          strokeDasharray={shape.dashed && '4 3'}
        />
      )
    case 'box':
      return (
        <rect
          x={shape.x}
          y={shape.y}
          width={shape.width}
          height={shape.height}
          {...(shape.filled ? { 'data-fill': shape.ink } : { 'data-line': shape.ink, strokeWidth: 0.6 })}
        />
      )
    case 'dot':
      return <circle cx={shape.x} cy={shape.y} r={shape.radius} data-fill={shape.ink} />
    case 'text':
      return (
        <text x={shape.x} y={shape.y} style={{ fontSize: shape.size }} textAnchor={shape.anchor} data-fill={shape.ink}>
          {shape.text}
        </text>
      )
    case 'image':
      return (
        <image
          href={`/sites/${siteId}/files/${shape.file}`}
          x={shape.x}
          y={shape.y}
          width={shape.width}
          height={shape.height}
          preserveAspectRatio="none"
          opacity={0.45}
        />
      )
  }
}
