import look from './hallway-picture.module.css'

const HALF = 70
/** The doors of the picture: where each stands, how far it opens, and what it passes. */
const DOORS = [
  { x: 130, open: 46, passes: '38.7 Gb/s' },
  { x: 250, open: 18, passes: '17.3 Gb/s' },
  { x: 370, open: 40, passes: '25.9 Gb/s' },
] as const
const ROOMS = [
  { x: 65, name: 'laptop' },
  { x: 190, name: 'lead, 3 m' },
  { x: 310, name: 'dock' },
  { x: 435, name: 'display' },
] as const

/** What Hallway is, in one picture: a path as a hallway, and the door that decides. */
export function HallwayPicture() {
  return (
    <section className={look.what} aria-label="What Hallway is">
      <p className={look.say}>
        A path of cables is a hallway. What has to pass (picture, data, power) goes through a row of doors: port, lead,
        dock, lead, port. <b>The narrowest door decides.</b> Hallway works out how wide each door is at its length, says
        what does not fit, and what would make it fit.
      </p>
      <svg
        viewBox="0 0 500 178"
        className={look.picture}
        role="img"
        aria-label="A hallway from a laptop to a display: a picture of 25.8 Gb/s meets doors of 38.7, 17.3 and 25.9 Gb/s. The second is too narrow."
      >
        <path d={`M0 ${90 - HALF}H500M0 ${90 + HALF}H500`} className={look.wall} />
        <path d="M0 90H244" strokeWidth="26" className={look.flow} />
        <path d="M256 90H500" strokeWidth="26" className={`${look.flow} ${look.short}`} />
        {DOORS.map(({ x, open, passes }) => {
          const narrow = passes === '17.3 Gb/s'
          return (
            <g key={x}>
              <path
                d={`M${x} ${90 - HALF}V${90 - open / 2}M${x} ${90 + open / 2}V${90 + HALF}`}
                className={narrow ? look.narrowWall : look.wall}
              />
              <text x={x} y="12" className={narrow ? `${look.figure} ${look.narrow}` : look.figure}>
                {passes}
              </text>
            </g>
          )
        })}
        {ROOMS.map(({ x, name }) => (
          <text key={name} x={x} y="52" className={look.room}>
            {name}
          </text>
        ))}
        <text x="250" y="176" className={`${look.figure} ${look.narrow}`}>
          narrowest door: 8.5 Gb/s short
        </text>
      </svg>
    </section>
  )
}
