import { allStudentData } from '../../core/student-data/student-data'

/** A count of nought for every kind of student data. */
export const noStudentData = Object.fromEntries(allStudentData.map(kind => [kind.name, 0]))
