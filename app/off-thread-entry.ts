import { runner } from '../server/off-thread/thread'
import * as tasks from './off-thread-tasks'

/** What each thread beside the web server's own runs. */
export default runner(tasks)
