import { Gauge, type GaugeConfiguration, register } from 'prom-client'

/**
 * A figure of the process that goes up and down.
 * A file that is read once more (as it changes in development, or for another test of the same thread) makes its own anew, and the newest is the one that is told.
 */
export function gauge<Label extends string = string>(what: GaugeConfiguration<Label>): Gauge<Label> {
  register.removeSingleMetric(what.name)
  return new Gauge(what)
}
