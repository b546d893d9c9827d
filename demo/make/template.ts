import { pack } from './cartridge'
import type { Work } from './course'

const page = (key: string, title: string, text: string): Work => ({
  id: `t-${key}`,
  title,
  kind: 'page',
  page: { key, title, text },
})

/** What the department puts into a new shell before anyone has touched it: five items in one unit. */
export const templateCartridge = (): Uint8Array =>
  pack('Tidal Hydrography', 'hyd240-02-2027s', [
    {
      id: 't-start',
      title: 'Start here',
      works: [
        page(
          'welcome',
          'Welcome to Hydrography',
          `This space belongs to your course for the whole of the term. Work, dates and grades stand here and nowhere else; what is said in class about them is repeated here the same day. Look in on Mondays and Thursdays.

If something does not open, tell your instructor what you pressed and what you saw. It is seldom you.`,
        ),
        page(
          'integrity',
          'Honest work',
          `Say where every number and every sentence comes from that is not your own, including from the person at the next desk and from a machine. A log that records a mistake is honest work; a log that hides one is not. The department's rules are short, and are read aloud in the first week.`,
        ),
        page(
          'help',
          'Where to find help',
          `The field office lends boots, levels and advice. The writing room looks at drafts until two days before they are due. If life gets in the way, speak to your instructor before the date rather than after it; nearly everything can be arranged in advance, and much less of it later.`,
        ),
        {
          id: 't-introductions',
          title: 'Introductions',
          kind: 'discussion',
          text: 'Say who you are and what you hope to be able to do in April that you cannot do now.',
        },
        {
          id: 't-ready',
          title: 'Are you ready?',
          kind: 'quiz',
          quiz: [['Where are due dates to be found?', 'In this course', 'On the door of the tide room']],
        },
      ],
    },
  ])
