import { present } from '../../core/present'
import { zipSync } from 'fflate'
import type { Work, WorkUnit } from './course'

const namespace = 'http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1'
export const xml = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** Paragraphs as HTML, and headings (`## words`); `[[key|words]]` becomes a link to another page, in one of the two ways packages write it. */
function paragraphs(text: string): string {
  let links = 0
  const linked = (part: string): string =>
    xml(part).replace(
      /\[\[([^|]+)\|([^\]]+)\]\]/g,
      (_, key, words) => `<a href="${links++ % 2 ? '$IMS-CC-FILEBASE$/pages/' : ''}${key}.html">${words}</a>`,
    )
  return text
    .split('\n\n')
    .map(part => (part.startsWith('## ') ? `<h2>${xml(part.slice(3))}</h2>` : `<p>${linked(part)}</p>`))
    .join('\n')
}
const pageHtml = (title: string, body: string): string =>
  `<!DOCTYPE html>\n<html lang="en">\n<head><meta charset="utf-8"><title>${xml(title)}</title></head>\n<body>\n<h1>${xml(title)}</h1>\n${body}\n</body>\n</html>\n`

const bulges = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 360 150" role="img"><rect width="360" height="150" fill="#F6F4EC"/><ellipse cx="120" cy="75" rx="92" ry="52" fill="#BFDCDB" stroke="#0E7C7B"/><circle cx="120" cy="75" r="48" fill="#E6D9B8" stroke="#14263A"/><circle cx="318" cy="75" r="14" fill="#D9D3C3" stroke="#14263A"/><path d="M216 75h82" stroke="#14263A" stroke-dasharray="4 4"/><text x="302" y="112" font-family="serif" font-size="13" fill="#14263A">moon</text></svg>\n`

function qti(work: Work): string {
  const questions = present(work.quiz)
    .map(([prompt, right, ...wrong], at) => {
      // The right answer does not always stand first.
      const answers = [...wrong]
      answers.splice(at % (wrong.length + 1), 0, right)
      const labels = answers
        .map(
          (answer, index) =>
            `<response_label ident="a${index}"><material><mattext texttype="text/plain">${xml(answer)}</mattext></material></response_label>`,
        )
        .join('')
      return (
        `<item ident="${work.id}-q${at + 1}" title="Question ${at + 1}"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.multiple_choice.v0p1</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>1</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>` +
        `<presentation><material><mattext texttype="text/html">${xml(`<p>${xml(prompt)}</p>`)}</mattext></material><response_lid ident="r" rcardinality="Single"><render_choice>${labels}</render_choice></response_lid></presentation>` +
        `<resprocessing><outcomes><decvar maxvalue="100" minvalue="0" varname="SCORE" vartype="Decimal"/></outcomes><respcondition continue="No"><conditionvar><varequal respident="r">a${answers.indexOf(right)}</varequal></conditionvar><setvar action="Set" varname="SCORE">100</setvar></respcondition></resprocessing></item>`
      )
    })
    .join('\n')
  return `<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="${work.id}" title="${xml(work.title)}"><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.exam.v0p1</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>cc_maxattempts</fieldlabel><fieldentry>2</fieldentry></qtimetadatafield><qtimetadatafield><fieldlabel>qmd_timelimit</fieldlabel><fieldentry>20</fieldentry></qtimetadatafield></qtimetadata><section ident="root_section">\n${questions}\n</section></assessment></questestinterop>\n`
}

const packed = '2026-12-18T12:00:00Z'
/** A text document (ISO/IEC 29500) of nothing but paragraphs. */
function docx(texts: readonly string[]): Uint8Array {
  const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
  const main = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml'
  const of = 'http://schemas.openxmlformats.org/'
  const parts = {
    '[Content_Types].xml': `<Types xmlns="${of}package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="${main}"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="${of}package/2006/relationships"><Relationship Id="r1" Type="${of}officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>`,
    'word/document.xml': `<w:document xmlns:w="${of}wordprocessingml/2006/main"><w:body>${texts.map(text => `<w:p><w:r><w:t>${xml(text)}</w:t></w:r></w:p>`).join('')}</w:body></w:document>`,
  }
  const bytes = Object.entries(parts).map(([path, inner]) => [path, new TextEncoder().encode(head + inner)])
  return zipSync(Object.fromEntries(bytes), { level: 9, mtime: packed })
}

/** How a work stands in the package: the type of its resource and its file. */
function fileOf(work: Work): { type: string; path: string; content: string | Uint8Array } | null {
  const documentXml = (name: string, ns: string, inner: string): string =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<${name} xmlns="${ns}"${name === 'assignment' ? ` identifier="${work.id}"` : ''}>${inner}</${name}>\n`
  const text = `<text texttype="text/html">${xml(paragraphs(work.text ?? ''))}</text>`
  switch (work.kind) {
    case 'page':
      return {
        type: 'webcontent',
        path: `pages/${present(work.page).key}.html`,
        content: pageHtml(
          present(work.page).title,
          work.html ??
            `${present(work.page).key === 'bulges' ? '<p><img src="../images/two-bulges.svg" alt="An earth with a bulge of water towards the moon and one away from it"></p>\n' : ''}${paragraphs(present(work.page).text)}`,
        ),
      }
    case 'file':
      if (work.raw)
        return {
          type: 'webcontent',
          path: `data/${work.id.slice(2)}.${work.raw.ending}`,
          content: work.raw.content,
        }
      if (work.docx)
        return { type: 'webcontent', path: `data/${work.id.slice(2)}.docx`, content: docx(work.docx) }
      return { type: 'webcontent', path: `data/${work.id.slice(2)}.csv`, content: present(work.data) }
    case 'weblink':
      return {
        type: 'imswl_xmlv1p3',
        path: `links/${work.id}.xml`,
        content: documentXml(
          'webLink',
          'http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3',
          `<title>${xml(work.title)}</title><url href="${xml(present(work.url))}" target="_blank"/>`,
        ),
      }
    case 'tool':
      return {
        type: 'imsbasiclti_xmlv1p3',
        path: `tools/${work.id}.xml`,
        content: `<?xml version="1.0" encoding="UTF-8"?>\n<cartridge_basiclti_link xmlns="http://www.imsglobal.org/xsd/imslticc_v1p3" xmlns:blti="http://www.imsglobal.org/xsd/imsbasiclti_v1p0"><blti:title>${xml(work.title)}</blti:title><blti:launch_url>${xml(present(work.url))}</blti:launch_url></cartridge_basiclti_link>\n`,
      }
    case 'discussion':
      return {
        type: 'imsdt_xmlv1p3',
        path: `topics/${work.id}.xml`,
        content: documentXml(
          'topic',
          'http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3',
          `<title>${xml(work.title)}</title>${text}`,
        ),
      }
    case 'assignment':
      return {
        type: 'assignment_xmlv1p0',
        path: `assignments/${work.id}.xml`,
        content: documentXml(
          'assignment',
          'http://www.imsglobal.org/xsd/imscc_extensions/assignment',
          `<title>${xml(work.title)}</title>${text}<gradable points_possible="${work.points}">true</gradable><submission_formats><format type="file"/><format type="text"/></submission_formats>`,
        ),
      }
    case 'quiz':
      return {
        type: 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment',
        path: `quizzes/${work.id}.xml`,
        content: qti(work),
      }
    case 'heading':
      return null
  }
}

/** A Common Cartridge 1.3 package of units, with any further files that no item shows. */
export function pack(
  title: string,
  identifier: string,
  units: readonly WorkUnit[],
  further: Record<string, string> = {},
): Uint8Array {
  const files: Record<string, string | Uint8Array> = { ...further }
  const resources: string[] = Object.keys(further).map(
    (path, at) =>
      `<resource identifier="r-further-${at + 1}" type="webcontent" href="${path}"><file href="${path}"/></resource>`,
  )
  const items = units
    .map(
      unit =>
        `<item identifier="${unit.id}"><title>${xml(unit.title)}</title>\n${unit.works
          .map(work => {
            const file = fileOf(work)
            const resource = work.id.replace(/^i-/, 'r-')
            if (file) {
              files[file.path] = file.content
              resources.push(
                `<resource identifier="${resource}" type="${file.type}" href="${file.path}"><file href="${file.path}"/></resource>`,
              )
            }
            return `<item identifier="${work.id}"${file ? ` identifierref="${resource}"` : ''}><title>${xml(work.title)}</title></item>`
          })
          .join('\n')}\n</item>`,
    )
    .join('\n')
  const manifest = `<?xml version="1.0" encoding="UTF-8"?>
<manifest identifier="${identifier}" xmlns="${namespace}" xmlns:lomimscc="http://ltsc.ieee.org/xsd/imsccv1p3/LOM/manifest">
<metadata><schema>IMS Common Cartridge</schema><schemaversion>1.3.0</schemaversion><lomimscc:lom><lomimscc:general><lomimscc:title><lomimscc:string language="en">${xml(title)}</lomimscc:string></lomimscc:title></lomimscc:general></lomimscc:lom></metadata>
<organizations><organization identifier="org" structure="rooted-hierarchy"><item identifier="root">
${items}
</item></organization></organizations>
<resources>
${resources.join('\n')}
</resources>
</manifest>
`
  const bytes = Object.fromEntries(
    Object.entries({ 'imsmanifest.xml': manifest, ...files }).map(([path, content]) => [
      path,
      typeof content === 'string' ? new TextEncoder().encode(content) : content,
    ]),
  )
  return zipSync(bytes, { level: 9, mtime: packed })
}

export const cartridge = (units: readonly WorkUnit[]): Uint8Array =>
  pack('Tidal Hydrography', 'hyd240-01-2026a', units, { 'images/two-bulges.svg': bulges })
