import { Heading, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { decimal } from '../../../core/quantity/parsed'
import { pathwayFill } from '../../../core/route/fill'
import type { FloorLine } from '../../../core/route/floor-shape'
import { pointsExample, pointsText } from '../../../core/survey/points-text'
import type { Floor, Pathway, PathwayKind, Spot } from '../../../core/vocabulary/floor'
import { PATHWAY_KINDS } from '../../../core/vocabulary/floor'
import { SURROUNDINGS } from '../../../core/vocabulary/surroundings'
import text from '../../theme/text.module.css'
import { MainButton, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, PlainTextArea, plainField, TextField, tiedTo } from '../../ui/field'
import { GradeMark } from '../../ui/grade'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './floor.module.css'
import { numberText, PanelForm, type Sends } from './panel-form'

/** Cables are laid about so high in each (common practice); it is typed where it is otherwise. */
const USUAL: Readonly<Record<PathwayKind, number>> = {
  tray: 2.6,
  conduit: 2.6,
  trunking: 1,
  'raised floor': -0.1,
  desk: 0.65,
  'open floor': 0,
  drop: 2.6,
  riser: 0,
}

/** A pathway to be laid over the spots that were marked, or one to be changed. */
export function PathwayPanel({
  floor,
  pathway,
  marked,
  send,
  busy,
}: Sends & { floor: Floor; pathway: Pathway | null; marked: readonly Spot[] }) {
  const { plan } = useSite()
  const unit = useUnit()
  const [kind, setKind] = useState<PathwayKind>(pathway?.kind ?? 'tray')
  const context = { floor: floor.id, floors: plan.floors, unit }
  const markedText = (height: number) =>
    pointsText(
      marked.map((spot) => ({ ...spot, height })),
      context,
    )
  const [points, setPoints] = useState(pathway ? pointsText(pathway.points, context) : markedText(USUAL.tray))
  const field = plainField('points')
  return (
    <details open>
      <summary>{pathway ? pathway.name : 'A new pathway'}</summary>
      {!pathway && (
        <Text fontSize="sm" color="quiet">
          Mark its points on the floor one after the other, or type them.
        </Text>
      )}
      <PanelForm send={send}>
        {pathway && <input type="hidden" name="pathway" value={pathway.id} />}
        <div className={look.pair}>
          <TextField field={plainField('name', pathway?.name)} label="Name" required maxLength={120} />
          <LabelledField field={plainField('kind')} label="What it is">
            <PlainSelect
              id="field-kind"
              name="kind"
              value={kind}
              onChange={({ currentTarget }) => {
                const chosen = currentTarget.value as PathwayKind
                setKind(chosen)
                if (!pathway && marked.length > 0) setPoints(markedText(USUAL[chosen]))
              }}
            >
              {PATHWAY_KINDS.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </PlainSelect>
          </LabelledField>
          <div className={look.wide}>
            <LabelledField
              field={field}
              label="Points, a line each: right, down, height"
              hint={`like “${pointsExample}”, or “Desk 1, 0.7”; “Upper floor:” before a point goes on upon that floor`}
            >
              <PlainTextArea
                {...tiedTo({ field, hint: true })}
                name="points"
                value={points}
                onChange={({ currentTarget }) => setPoints(currentTarget.value)}
                rows={Math.min(10, Math.max(3, points.split('\n').length))}
                spellCheck={false}
                mono
              />
            </LabelledField>
          </div>
          <TextField
            field={plainField('inner', numberText(pathway?.inner))}
            label="Inner diameter, mm"
            inputMode="decimal"
          />
          <TextField
            field={plainField('free', numberText(pathway?.free))}
            label="Free section, mm²"
            inputMode="decimal"
          />
          <div className={look.wide}>
            <TextField
              field={plainField('beside', (pathway?.beside ?? []).join(' '))}
              label="Cables that lay there before, mm each"
              hint="like 5 5 6.5"
            />
          </div>
        </div>
        <fieldset className={look.ticks}>
          <legend className={text.small}>What it passes</legend>
          {SURROUNDINGS.map((what) => (
            <label key={what}>
              <input type="checkbox" name="through" value={what} defaultChecked={pathway?.through?.includes(what)} />
              {what.replaceAll('-', ' ')}
            </label>
          ))}
          <label>
            <input type="checkbox" name="closed" defaultChecked={pathway?.closed} /> <b>closed: no lead goes here</b>
          </label>
        </fieldset>
        <div className={look.tools}>
          <MainButton name="intent" value="pathway" loading={busy}>
            {pathway ? 'Save the pathway' : 'Lay the pathway'}
          </MainButton>
          {pathway && (
            <QuietButton name="intent" value="no pathway" formNoValidate grave>
              Remove
            </QuietButton>
          )}
        </div>
      </PanelForm>
    </details>
  )
}

/** The pathways of a floor, with what lies in them. */
export function PathwayTable({ floor, lines }: { floor: Floor; lines: readonly FloorLine[] }) {
  const { plan, index } = useSite()
  if (lines.length === 0) return null
  return (
    <section aria-labelledby="pathways-heading" className={look.block}>
      <Heading as="h2" size="md" mb="2" id="pathways-heading">
        Pathways
      </Heading>
      <LongTable
        label="Pathways of this floor"
        columns={['Pathway', 'What it is', 'Runs in it', 'How full']}
        rows={lines}
        keyOf={({ pathway }) => pathway.id}
      >
        {({ pathway, leaves }, props) => {
          const { runs, fill, unmeasured } = pathwayFill(index, pathway)
          return (
            <tr {...props} key={pathway.id}>
              <td className={text.wide}>
                <RouterLink
                  to={`/sites/${plan.site.id}/floors/${floor.id}?pathway=${pathway.id}`}
                  replace
                  preventScrollReset
                  className={text.link}
                >
                  {pathway.name}
                </RouterLink>
                {leaves && <span className={text.quiet}> goes to another floor</span>}
              </td>
              <td>
                {pathway.kind}
                {pathway.closed ? ', closed' : ''}
              </td>
              <td>{runs.length === 0 ? '' : `${runs.length} ${runs.length === 1 ? 'run' : 'runs'}`}</td>
              <td>
                {fill ? (
                  <>
                    {decimal(fill.share * 100, 0)} % of {decimal(fill.limit * 100, 0)} %{' '}
                    <GradeMark grade={fill.allowed ? 'clear' : 'blocked'} size="xs" />
                  </>
                ) : (
                  <span className={text.quiet}>section not measured</span>
                )}
                {unmeasured > 0 && (
                  <span className={text.quiet}>
                    , {unmeasured} {unmeasured === 1 ? 'lead' : 'leads'} of unknown thickness
                  </span>
                )}
              </td>
            </tr>
          )
        }}
      </LongTable>
    </section>
  )
}
