import { entityOf } from '../../observe/every'
import { observationSchema } from '../../observe/observation'
import { listOf } from '../../vocabulary/list'

export const observations = listOf(observationSchema, {
  noun: 'observation',
  most: 100_000,
  *references(observation) {
    const { subject } = observation
    if ('cable' in subject) yield { path: 'subject.cable', to: 'cables', id: subject.cable }
    else if ('run' in subject) yield { path: 'subject.run', to: 'runs', id: subject.run }
    else if ('kind' in subject) yield { path: 'subject.kind', to: 'kinds', id: subject.kind }
    else if ('controller' in subject) yield { path: 'subject.device', to: 'devices', id: subject.device }
    else if (subject.port === undefined) yield { path: 'subject.device', to: 'devices', id: subject.device }
    else yield { path: 'subject', to: 'port', address: { device: subject.device, port: subject.port } }
    if (observation.kind === 'retraction') yield { path: 'retracts', to: 'observations', id: observation.retracts }
  },
  spare: { room: 10_000, isSpare: ({ kind }) => kind === 'retraction' },
  grows: ({ subject }) => entityOf(subject),
  bears(on, { subject }) {
    if ('cable' in subject) on.cable(subject.cable)
    else if ('kind' in subject) on.kind(subject.kind)
    else if ('run' in subject) {
      on.onlyRun(subject.run)
      for (const lead of subject.leads) on.cable(lead)
    }
  },
})
