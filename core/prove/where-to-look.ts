import type { RunTestKind } from './run-tests'

/** Where a test is read on the usual desktop systems and on Linux, in general words. */
export type WhereToLook = { desktop: string; linux: string; otherwise?: string }

export const whereToLook: Record<RunTestKind, WhereToLook> = {
  link: {
    desktop:
      'The system report or the device list: find the device in the USB or Thunderbolt tree, and read the speed beside it.',
    linux: 'lsusb -t shows the speed of each device; boltctl lists tunnels. ./hallway probe reads both.',
    otherwise: 'A copy that runs faster than 53 MB/s proves that it is not USB 2.0.',
  },
  picture: {
    desktop: 'The advanced display page: choose the mode, wait a minute, and read back which one is active.',
    linux: 'The display settings, or xrandr: the active mode has a star.',
    otherwise: 'Never choose "second display only" before the second is known to show.',
  },
  write: {
    desktop: 'A disk test with a file larger than the memory of the computer, or a real copy timed with a clock.',
    linux: './hallway probe --copy FOLDER writes a test file without the cache, and times it.',
  },
  read: {
    desktop: 'The same test, the other way. What was just written may come from the cache: read another file.',
    linux: './hallway probe --copy FOLDER reads its test file back without the cache.',
  },
  watts: {
    desktop:
      'The power page of the system report, or the battery page; a small meter in the line tells both volts and amperes.',
    linux: '/sys/class/power_supply: voltage_now and current_now. ./hallway probe reads them.',
    otherwise: 'Test with a battery below half: a nearly full one takes little.',
  },
  'volts lost': {
    desktop: 'A load and a meter at the far end: read the volts without a load and at several currents.',
    linux: 'The same. No computer tells it by itself.',
  },
  warmth: {
    desktop: 'Touch the plugs and any box in the lead after 1, 10 and 30 minutes, or use a thermometer.',
    linux: 'The same.',
    otherwise: 'Too hot to hold: unplug at the supply, let it cool, retire the lead.',
  },
  battery: {
    desktop: 'Write down the percent every quarter of an hour while it is worn, for two hours or more.',
    linux: 'The same; some headsets tell it over their own tool.',
  },
  'headset link': {
    desktop: "The link test in the headset's own settings. Run it on a lead you know as well.",
    linux: 'The same.',
    otherwise: 'If it does not move with what should move it, do not trust it.',
  },
  frames: {
    desktop: 'The capture tool tells frames asked, come and dropped. Film a clock for the time from hand to screen.',
    linux: 'v4l2-ctl with its stream count, or the capture tool.',
  },
  'added delay': {
    desktop: 'A loop from output to input, measured on the short lead and on the run, in turn, same settings.',
    linux: 'jack_iodelay or the loop test of the audio tool.',
  },
  sight: {
    desktop: 'Look at fine text and at a dark, moving scene: sparkles, flicker, a blurred edge.',
    linux: 'The same.',
  },
  soak: {
    desktop: 'Leave everything running. The system log tells when a device went and came back.',
    linux: './hallway probe --watch tells each drop with its instant; so does journalctl -k -f.',
    otherwise: 'A look of less than 60 s proves nothing.',
  },
}
