import { useNavigation } from 'react-router'
import { MOST_PHOTOS, type Place } from '../../../core/plan/plan'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { FileField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import look from './walk.module.css'

/** The photos of a place, and a way to add one. Wherever they are shown they are kept by the walk; `from` is the page to come back to. */
export function Photos({ place, from = 'walk' }: { place: Place; from?: 'walk' | 'install' }) {
  const { plan } = useSite()
  const busy = useNavigation().state === 'submitting'
  const action = `/sites/${plan.site.id}/walk`
  const hidden = (
    <>
      <MadeFrom />
      <input type="hidden" name="place" value={place.id} />
      <input type="hidden" name="from" value={from} />
    </>
  )
  const photos = place.photos ?? []
  return (
    <>
      {photos.length > 0 && (
        <ul className={look.photos}>
          {photos.map(({ file, note }, at) => (
            <li key={file}>
              <a href={`/sites/${plan.site.id}/files/${file}`}>
                <img
                  src={`/sites/${plan.site.id}/files/${file}`}
                  alt={note ?? `Photo ${at + 1} of ${place.name}`}
                  loading="lazy"
                />
              </a>
              <Form method="post" action={action} preventScrollReset>
                {hidden}
                <input type="hidden" name="file" value={file} />
                <QuietButton
                  name="intent"
                  value="no photo"
                  small
                  grave
                  aria-label={`Take photo ${at + 1} of ${place.name} away`}
                >
                  Remove
                </QuietButton>
              </Form>
            </li>
          ))}
        </ul>
      )}
      {photos.length < MOST_PHOTOS && (
        <Form method="post" action={action} encType="multipart/form-data" preventScrollReset className={look.run}>
          {hidden}
          <FileField label={`A photo of ${place.name}`} name="photo" accept="image/jpeg,image/png,image/webp" />
          <QuietButton name="intent" value="photo" loading={busy}>
            Keep it with the place
          </QuietButton>
        </Form>
      )}
    </>
  )
}
