import { useHotkeys } from 'react-hotkeys-hook'

/** A single key for something people do often, by what it writes on their keyboard; never while they are typing. */
export const useShortcut = (key: string, act: () => void): void => {
  useHotkeys(key, act, { preventDefault: true, useKey: true })
}
