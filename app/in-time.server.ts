import type { MiddlewareFunction } from 'react-router'
import { withinTime } from '../server/database/deadline'

/** Whatever a page or a save waits for, its answer comes within the time that a request has. */
export const answeredInTime: MiddlewareFunction<Response> = (_args, next) => withinTime(next)
