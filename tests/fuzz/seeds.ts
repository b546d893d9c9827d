import { readFileSync } from 'node:fs'
import { itemXml, manifestOf, resourceXml } from '../support/archives'
import { closureCalendar, closureTable } from '../support/samples'

const xml = (text: string): string => `<?xml version="1.0" encoding="UTF-8"?>${text}`
const material = (text: string): string =>
  `<material><mattext texttype="text/html">${text}</mattext></material>`
const question = (ident: string, profile: string, inner: string): string =>
  `<item ident="${ident}" title="${ident}"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.${profile}.v0p1</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>2</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>${inner}</item>`
const choices =
  '<response_lid ident="r" rcardinality="Single"><render_choice shuffle="Yes"><response_label ident="a"><material><mattext>High</mattext></material></response_label><response_label ident="b"><material><mattext>Low</mattext></material></response_label></render_choice></response_lid>'
const scored = (condition: string): string =>
  `<resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="100"/></outcomes><respcondition continue="No"><conditionvar>${condition}</conditionvar><setvar action="Set" varname="SCORE">100</setvar><displayfeedback feedbacktype="Response" linkrefid="f"/></respcondition></resprocessing><itemfeedback ident="f">${material('Yes')}</itemfeedback>`
const questions =
  question(
    'q1',
    'multiple_choice',
    `<presentation>${material('&lt;p&gt;Which &lt;img src="$IMS-CC-FILEBASE$/images/a%20b.png"&gt;&lt;/p&gt;')}${choices}</presentation>${scored('<varequal respident="r">a</varequal>')}`,
  ) +
  question(
    'q2',
    'fib',
    `<presentation>${material('How high?')}<response_str ident="t"><render_fib/></response_str></presentation>${scored('<or><varequal respident="t">4</varequal><not><varsubstring respident="t">five</varsubstring></not></or>')}`,
  ) +
  question(
    'q3',
    'essay',
    `<presentation>${material('Why?')}<response_str ident="t"><render_fib/></response_str></presentation>`,
  )

/** The files of a package that has one of everything. */
export const cartridgeFiles: Record<string, string> = {
  'imsmanifest.xml': manifestOf(
    itemXml(
      'u1',
      'Unit &amp; one',
      itemXml('i1', 'Page', '', 'r1') +
        itemXml('i2', 'Topic', '', 'r2') +
        itemXml('h', 'Head') +
        itemXml('u2', 'Deeper', itemXml('i3', 'Quiz', '', 'r3') + itemXml('i4', 'Link', '', 'r4')),
    ) + itemXml('u3', '単元三', itemXml('i5', 'Tool', '', 'r5') + itemXml('i6', 'Essay', '', 'r6')),
    resourceXml(
      'r1',
      'webcontent',
      'pages/one.html',
      '<file href="images/a b.png"/><dependency identifierref="r8"/>',
    ) +
      resourceXml('r2', 'imsdt_xmlv1p3', 'topic.xml', '<dependency identifierref="r8"/>') +
      resourceXml('r3', 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment', 'quiz.xml') +
      resourceXml('r4', 'imswl_xmlv1p3', 'link.xml') +
      resourceXml('r5', 'imsbasiclti_xmlv1p3', 'tool.xml') +
      resourceXml('r6', 'assignment_xmlv1p0', 'essay.xml') +
      resourceXml('r7', 'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank', 'bank.xml') +
      resourceXml(
        'r8',
        'webcontent',
        'images/a b.png',
        '<metadata><lom xmlns="http://ltsc.ieee.org/xsd/imsccv1p3/LOM/resource"><educational><intendedEndUserRole><value>Instructor</value></intendedEndUserRole></educational></lom></metadata>',
      ) +
      resourceXml('r9', 'associatedcontent/imscc_xmlv1p3/learning-application-resource', 'loose/data.txt'),
    '1.3.0',
    '<lom:lom><lom:general><lom:title><lom:string language="en">Tidal Hydrography</lom:string></lom:title><lom:language>en-CA</lom:language></lom:general></lom:lom>',
  ),
  'pages/one.html':
    '<!doctype html><html><head><title>One</title></head><body><p><a href="../quiz.xml">q</a> <a href="$IMS-CC-FILEBASE$/images/a%20b.png?x=1#y">pic</a> <img src="../images/A B.png"> <a href="https://outside.example/">out</a></p></body></html>',
  'topic.xml': xml(
    '<topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>Topic</title><text texttype="text/html">&lt;p&gt;Say &lt;a href="pages/one.html"&gt;it&lt;/a&gt;&lt;/p&gt;</text><attachments><attachment href="images/a b.png"/></attachments></topic>',
  ),
  'quiz.xml': xml(
    `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="A" title="Quiz"><section ident="s">${questions}</section></assessment></questestinterop>`,
  ),
  'bank.xml': xml(
    `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><objectbank ident="B">${questions}</objectbank></questestinterop>`,
  ),
  'link.xml': xml(
    '<webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3"><title>Link</title><url href="https://tides.example/a?b=c&amp;d" target="_blank"/></webLink>',
  ),
  'tool.xml': xml(
    '<cartridge_basiclti_link xmlns="http://www.imsglobal.org/xsd/imslticc_v1p3" xmlns:blti="http://www.imsglobal.org/xsd/imsbasiclti_v1p0" xmlns:lticm="http://www.imsglobal.org/xsd/imslticm_v1p0"><blti:title>Tool</blti:title><blti:custom><lticm:property name="unit">1</lticm:property></blti:custom><blti:extensions platform="p"><lticm:property name="k">v</lticm:property></blti:extensions><blti:launch_url>https://tool.example/l</blti:launch_url></cartridge_basiclti_link>',
  ),
  'essay.xml': xml(
    '<assignment xmlns="http://www.imsglobal.org/xsd/imscc_extensions/assignment" identifier="e"><title>Essay</title><text texttype="text/html">&lt;p&gt;Write.&lt;/p&gt;</text><instructor_text texttype="text/plain">Key</instructor_text><gradable points_possible="12.5">true</gradable><submission_formats><format type="file"/></submission_formats></assignment>',
  ),
  'images/a b.png': '\x89PNG not really',
  'loose/data.txt': 'data',
}
/** The files of a roster bundle. */
export const rosterFiles: Record<string, string> = {
  'manifest.csv':
    'propertyName,value\r\nmanifest.version,1.0\r\noneroster.version,1.1\r\nfile.orgs,bulk\r\nfile.users,bulk\r\nfile.academicSessions,bulk\r\nfile.courses,bulk\r\nfile.classes,bulk\r\nfile.enrollments,delta\r\n',
  'orgs.csv':
    'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\r\no1,active,2026-01-02T03:04:05.000Z,"The ""Old""\r\nSchool",school,,\r\n',
  'users.csv':
    '\uFEFFsourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName\r\np1,active,,true,o1,student,p1,,Ann,Ash\r\np2,active,,true,"o1,o1",teacher,p2,{x:1},Bo,Birch\r\n',
  'academicSessions.csv':
    'sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear\r\ns1,active,,Autumn,term,2026-09-02,2026-12-04,,2027\r\n',
  'courses.csv':
    'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId\r\nc1,active,,,Sea,SEA 1,,o1\r\n',
  'classes.csv':
    'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds\r\nk1,active,,Sea 01,,c1,SEA 1-01,scheduled,,o1,s1\r\n',
  'enrollments.csv':
    'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary\r\ne1,active,,k1,o1,p1,student,false\r\ne2,tobedeleted,,k1,o1,p2,teacher,true\r\n',
}
const calendar = [
  'BEGIN:VCALENDAR',
  'VERSION:2.0',
  'BEGIN:VTIMEZONE',
  'TZID:Halifax',
  'BEGIN:DAYLIGHT',
  'DTSTART:20070311T020000',
  'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=2SU',
  'TZOFFSETFROM:-0400',
  'TZOFFSETTO:-0300',
  'END:DAYLIGHT',
  'BEGIN:STANDARD',
  'DTSTART:20071104T020000',
  'RRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=1SU',
  'TZOFFSETFROM:-0300',
  'TZOFFSETTO:-0400',
  'END:STANDARD',
  'END:VTIMEZONE',
  'BEGIN:VEVENT',
  'UID:a',
  'DTSTART;TZID=Halifax:20270108T093000',
  'DTEND;TZID=Halifax:20270108T103000',
  'RRULE:FREQ=WEEKLY;BYDAY=MO,WE,FR;UNTIL=20270409T000000Z;INTERVAL=2;WKST=SU',
  'EXDATE;TZID=Halifax:20270113T093000',
  'RDATE;VALUE=PERIOD:20270201T140000Z/PT1H',
  'SUMMARY:Class\\, with',
  '  a fold',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'UID:a',
  'RECURRENCE-ID;TZID=Halifax:20270115T093000',
  'DTSTART;TZID=Halifax:20270116T093000',
  'DURATION:PT1H',
  'SUMMARY:Moved',
  'END:VEVENT',
  'BEGIN:VEVENT',
  'DTSTART;VALUE=DATE:20270215',
  'DTEND;VALUE=DATE:20270220',
  'RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=-1;BYSETPOS=1',
  'SUMMARY:Break',
  'BEGIN:VALARM',
  'TRIGGER:-PT15M',
  'END:VALARM',
  'END:VEVENT',
  'END:VCALENDAR',
  '',
].join('\r\n')

// Bundled, this file lies elsewhere: the folder is that of the project, from which everything is run.
const file = (path: string): Buffer => readFileSync(path)
const text = (content: string): Buffer => Buffer.from(content)
/** Whole files whose bytes are changed. */
export const wholeFiles = (): Record<string, Buffer[]> => ({
  zip: [
    file('demo/files/hyd-240-02-spring-2027.imscc'),
    file('demo/files/port-ellery.oneroster.zip'),
    file('tests/fuzz/days.xlsx'),
  ],
  icalendar: [text(calendar), closureCalendar()],
  table: [
    closureTable(),
    text('Name,Start,End\nBreak,2027-02-15,2027-02-19\n"A, b",1 March 2027,\n'),
    text('Date\tWhat\n2/15/2027\tX\n'),
    Buffer.from('\uFEFFDate,What\n15.2.2027,Ferien\n', 'utf16le'),
  ],
})
/** Pages whose parts are mixed. */
export const pages = [
  cartridgeFiles['pages/one.html']!,
  '<svg><a xlink:href="javascript:alert(1)"><text>x</text></a></svg>',
  '<math><mtext><table><mglyph><style><img src=x onerror=alert(1)></style>',
  '<form action="https://outside.example"><input name=a><button formaction=javascript:alert(1)>',
  '<img src="x" srcset="https://outside.example/a 1x" onerror=alert(1)>',
  '<a href="java\tscript:alert(1)">x</a>',
  '<iframe srcdoc="<script>alert(1)</script>"></iframe>',
  '<template><script>alert(1)</script></template>',
  '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
  '<style>@import "https://outside.example/a.css"; p{background:url(https://outside.example/b)}</style><p style="background:url(//outside.example/c)">x',
  '<video poster="https://outside.example/p"><source src="https://outside.example/v"><track src=//outside.example/t></video>',
  '<base href="https://outside.example/"><meta http-equiv=refresh content="0;url=https://outside.example"><link rel=stylesheet href=//outside.example/s>',
  '<a name=x id=y href="#y" ping="https://outside.example/">z</a>',
  '<!--[if gte IE 4]><script>alert(1)</script><![endif]--><![CDATA[<img src=x onerror=alert(1)>]]>',
]
