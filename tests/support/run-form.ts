type End = { device: string; port: string }
/** A run as the plan file has it, as far as its form asks. */
export type SentRun = {
  id: string
  tag: string
  from: End
  to: End
  leads: { cable: string }[]
  route: { length: number }
}

/** What the page of a run sends where nothing but the note is changed. */
export const formOfRun = (
  run: SentRun,
  { base, note, change }: { base: string; note: string; change: string },
): URLSearchParams =>
  new URLSearchParams({
    tag: run.tag,
    from: `${run.from.device}/${run.from.port}`,
    to: `${run.to.device}/${run.to.port}`,
    length: `${run.route.length} m`,
    'leads[0]': run.leads[0]?.cable ?? '',
    had: '',
    base,
    note,
    change,
  })
