import { FormatRefusal } from '../findings'
import { textAt, type XmlElement } from '../xml'

/** The versions that are read, each with the namespace of its manifest (1EdTech Common Cartridge profiles of IMS Content Packaging; from memory). */
const namespaces: Record<string, string> = {
  '1.0': 'http://www.imsglobal.org/xsd/imscc/imscp_v1p1',
  '1.1': 'http://www.imsglobal.org/xsd/imsccv1p1/imscp_v1p1',
  '1.2': 'http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1',
  '1.3': 'http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1',
}

/**
 * The version of a cartridge, from what its metadata says, else from the namespace of its manifest.
 * @throws FormatRefusal for what is no cartridge or of a version that is not read.
 */
export function versionOf(name: string, manifest: XmlElement): { version: string; remarks: string[] } {
  const remarks: string[] = []
  const byNamespace = Object.entries(namespaces).find(
    ([, namespace]) => namespace === manifest.namespace,
  )?.[0]
  const schema = textAt(manifest, 'metadata', 'schema')
  const stated = textAt(manifest, 'metadata', 'schemaversion')
  if (schema !== null && !/common cartridge/i.test(schema))
    throw new FormatRefusal(
      name,
      `its manifest says it is “${schema.slice(0, 80)}”; a Common Cartridge 1.0 to 1.3 is read here`,
    )
  const version = stated === null ? byNamespace : /^1\.[0-3](?=\.|$)/.exec(stated)?.[0]
  if (!version)
    throw new FormatRefusal(
      name,
      `is Common Cartridge ${stated === null ? 'of no stated version' : stated.slice(0, 40)}; versions 1.0 to 1.3 are read here`,
    )
  if (stated === null) remarks.push(`says no version; it was read as ${version}, by its namespace`)
  else if (byNamespace === undefined)
    remarks.push(
      `has ${manifest.namespace ? `the namespace ${manifest.namespace.slice(0, 120)}` : 'no namespace'}, which is not that of Common Cartridge ${version}; it was read by the names of its elements`,
    )
  else if (byNamespace !== version)
    remarks.push(
      `says it is version ${version} and has the namespace of ${byNamespace}; it was read as ${version}`,
    )
  return { version, remarks }
}
