import { itemXml, manifestOf, resourceXml, zipOf, zipOfFiles } from './archives'

const web = 'webcontent'
/** A package as they come after years: parts missing, a link into nowhere, a page in an old encoding, a type that nobody knows, a file that is not listed. */
export const oddPackage = (): Buffer =>
  zipOfFiles({
    'imsmanifest.xml': manifestOf(
      itemXml(
        'u1',
        'Getting your bearings',
        itemXml('i1', 'Welcome aboard', '', 'r1') +
          itemXml('i2', 'Chart of the harbour', '', 'r2') +
          itemXml('i3', 'Tide tables, 2019', '', 'r9') +
          itemXml('h1', 'Work of this unit'),
      ) +
        itemXml(
          'u2',
          'Quizzes from the old system',
          itemXml('i4', 'Check-in quiz', '', 'r4') + itemXml('i5', 'Placement', '', 'r5'),
        ),
      resourceXml('r1', web, 'pages/welcome.html') +
        resourceXml('r2', web, 'pages/chart.html') +
        resourceXml('r4', 'imsqti_xmlv1p2/imscc_xmlv1p1/assessment', 'quiz.xml') +
        resourceXml('r5', 'x-placement/v7', 'placement.bin') +
        resourceXml('r6', web, 'pages/spare.html', '<file href="pages/spare.png"/>'),
      '1.1.0',
      '<lom:lom><lom:general><lom:title><lom:string language="en">HYD 110: Coastal Waters</lom:string></lom:title></lom:general></lom:lom>',
    ),
    'pages/welcome.html':
      '<h1>Welcome</h1><p>Read <a href="Syllabus.html">the syllabus</a>, then <a href="chart.html">the chart</a>.</p><img src="../images/harbour.png" alt="The harbour">',
    'pages/chart.html': Buffer.from(
      '<html><head><title>Chart</title></head><body><p>Profondeur \xE0 mar\xE9e basse</p></body></html>',
      'latin1',
    ),
    'pages/spare.html': '<p>Not in use since 2021.</p>',
    'quiz.xml':
      '<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="a" title="Check-in quiz"><section ident="s"><item ident="q1"',
    'placement.bin': 'opaque',
  })

/** A package made to write outside the folder that it is unpacked in. */
export const hostilePackage = (): Buffer =>
  zipOf([
    { name: 'imsmanifest.xml', content: manifestOf(itemXml('u1', 'Notes'), '') },
    { name: '../../../../etc/cron.d/harbour', content: '* * * * * root true\n' },
  ])

/** A registrar's list of closures, day before month, one row of it wrong. */
export const closureTable = (): Buffer =>
  Buffer.from(
    '\uFEFFObserved;Holiday;Until;Remark\r\n15/02/2027;Heritage day;;no classes\r\n22/02/2027;Reading week;26/02/2027;=1+1\r\nsometime in March;Storm day;;\r\n26/03/2027;Good Friday;;\r\n',
  )

/** Closures as a calendar. */
export const closureCalendar = (): Buffer =>
  Buffer.from(
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Port Ellery Institute//Closures//EN',
      'BEGIN:VEVENT',
      'UID:1@portellery.example',
      'DTSTAMP:20261101T120000Z',
      'DTSTART;VALUE=DATE:20270222',
      'DTEND;VALUE=DATE:20270227',
      'SUMMARY:Reading week',
      'END:VEVENT',
      'BEGIN:VEVENT',
      'UID:2@portellery.example',
      'DTSTAMP:20261101T120000Z',
      'DTSTART;VALUE=DATE:20270326',
      'SUMMARY:Good Friday',
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n'),
  )
