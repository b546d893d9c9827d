/** What is timed of the server, in one bundle as it is shipped: tsx puts a call around every function it meets, which costs up to half as much again. */
export { readCourse } from '../server/courses/lines'
export { effectOf } from '../server/runs/effect'
export { readPlan, savePlan } from '../server/plans/plans'
export { runPlan } from '../server/runs/runs'
