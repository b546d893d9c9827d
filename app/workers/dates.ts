import { datesComputer } from './compute'
import type { ToDatesWorker } from './messages'

const compute = datesComputer(answer => self.postMessage(answer))
self.addEventListener('message', (event: MessageEvent<ToDatesWorker>) => compute(event.data))
