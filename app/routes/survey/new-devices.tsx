import { Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigation } from 'react-router'
import { MOST_AT_ONCE } from '../../../core/change/changes/survey'
import { fromTemplate, templates } from '../../../core/survey/templates'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { DeviceFields } from './device-fields'
import type { DeviceFault } from './device-form'
import { PortsField } from './ports-field'
import look from './survey.module.css'

/** A device, or several alike, from a usual one or from its own lines. */
export function NewDevices({
  wrong,
  place,
  choosePlace,
}: {
  wrong: DeviceFault['lines']
  place: string
  choosePlace: (id: string) => void
}) {
  const { plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const [name, setName] = useState(templates[0]?.name ?? '')
  const [ports, setPorts] = useState((templates[0]?.lines ?? []).join('\n'))
  const template = templates.find((each) => each.name === name)
  const groups = [...new Set(templates.map(({ group }) => group))]
  return (
    <Form method="post">
      <MadeFrom />
      <input type="hidden" name="intent" value="devices" />
      <div className={look.fields}>
        <LabelledField field={plainField('template')} label="Begin from">
          <PlainSelect
            id="field-template"
            name="template"
            value={name}
            onChange={({ currentTarget }) => {
              const chosen = templates.find((each) => each.name === currentTarget.value)
              setName(currentTarget.value)
              setPorts((chosen?.lines ?? []).join('\n'))
            }}
          >
            <option value="">nothing, port by port</option>
            {groups.map((group) => (
              <optgroup key={group} label={group}>
                {templates
                  .filter((each) => each.group === group)
                  .map((each) => (
                    <option key={each.name}>{each.name}</option>
                  ))}
              </optgroup>
            ))}
          </PlainSelect>
        </LabelledField>
        <TextField field={plainField('count', '1')} label="How many" type="number" min={1} max={MOST_AT_ONCE} />
      </div>
      <DeviceFields
        key={`${name} ${plan.devices.length}`}
        device={{
          ...(template ? fromTemplate(template) : { name: '', kind: 'computer', busPowered: false, ports: [] }),
          ...(place === '' ? {} : { place }),
        }}
        choosePlace={choosePlace}
      />
      <PortsField value={ports} put={setPorts} wrong={wrong} />
      <Flex mt="3" mb="4">
        <MainButton loading={saving}>Add to the survey</MainButton>
      </Flex>
    </Form>
  )
}
