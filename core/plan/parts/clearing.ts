import {
  clearChoices,
  clearingDecisions,
  nothingCleared,
  type ClearChoice,
} from '../../student-data/clearing'
import { studentDataWords, type StudentDataName } from '../../student-data/student-data'
import { changedIn } from '../join'
import { planPart } from '../part'

const told = (choice: ClearChoice | undefined): string => (choice ? clearChoices[choice] : 'as recommended')
/** What of student data is cleared in the course that is written: leftovers in a shell, or last term's in a course rolled in place. */
export const clearing = planPart({
  words: 'what is cleared',
  decisions: {
    staff: 'What teaching staff wrote',
    roster: 'Last term’s people on the registrar’s list',
  },
  schema: clearingDecisions.default(nothingCleared),
  recommended: nothingCleared,
  join: (joiner, values) => ({
    kinds: joiner.keyed('kinds', changedIn(values, 'kinds'), told),
    except: joiner.keyed('except', changedIn(values, 'except'), items =>
      items?.length ? `${items.length} items stay as they are` : 'all of them',
    ),
    staff: joiner.one('staff', changedIn(values, 'staff'), told),
    people: joiner.keyed('people', changedIn(values, 'people'), choice =>
      choice === 'clear' ? 'taken off' : 'stays',
    ),
    roster: joiner.one('roster', changedIn(values, 'roster'), choice =>
      choice === 'clear' ? 'taken off now' : 'left to the office’s sweep',
    ),
  }),
  habit: {
    keeps: ({ kinds, staff, roster }) => ({ ...nothingCleared, kinds, staff, roster }),
    over: (own, { kinds, staff, roster }) => ({ ...own, kinds, staff, roster }),
    tells: ({ kinds, staff, roster }) => [
      ...Object.entries(kinds).map(([kind, choice]) => {
        const [, many] = studentDataWords(kind as StudentDataName)
        return `Where some are left over, ${many} ${choice === 'clear' ? 'are cleared' : 'stay'}.`
      }),
      ...(staff === 'clear' ? ['What teaching staff wrote is cleared with what students wrote.'] : []),
      ...(roster === 'clear' ? ['Last term’s people on the registrar’s list are taken off at once.'] : []),
    ],
  },
  eachTerm: 'People added by hand, and items whose student data stays.',
  again: ({ kinds, staff, roster }) => ({ ...nothingCleared, kinds, staff, roster }),
  furtherShells: 'their own',
  forOtherSource: value => value,
})
