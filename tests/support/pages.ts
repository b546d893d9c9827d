import fc from 'fast-check'

const words = fc.constantFrom(
  'ebb',
  'flood &amp; slack',
  '<b>spring</b> tide',
  '<a href="northtide:x">log</a>',
)
const piece = fc.oneof(
  words.map(text => `<p>${text}</p>`),
  fc.tuple(fc.constantFrom(1, 2, 3), words).map(([level, text]) => `<h${level}>${text}</h${level}>`),
  fc
    .array(words, { minLength: 1, maxLength: 3 })
    .map(all => `<ul>${all.map(text => `<li>${text}</li>`).join('')}</ul>`),
  fc
    .array(words, { minLength: 1, maxLength: 2 })
    .map(all => `<table><tbody>${all.map(text => `<tr><td>${text}</td></tr>`).join('')}</tbody></table>`),
  fc.constant('<hr>'),
)
/** Some page: paragraphs, headings, lists, tables, ruled lines, some of them held together. */
export const anyPage = fc
  .array(
    fc.oneof(
      piece,
      fc.array(piece, { maxLength: 3 }).map(all => `<div class="q">${all.join('\n')}</div>`),
    ),
    {
      maxLength: 6,
    },
  )
  .map(all => all.join('\n'))
