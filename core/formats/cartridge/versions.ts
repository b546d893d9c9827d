import type { FindingList } from '../findings'
import { FormatRefusal } from '../refusal'
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
export function versionOf(name: string, manifest: XmlElement, where: string, findings: FindingList): string {
  const byNamespace = Object.entries(namespaces).find(
    ([, namespace]) => namespace === manifest.namespace,
  )?.[0]
  const schema = textAt(manifest, 'metadata', 'schema')
  const stated = textAt(manifest, 'metadata', 'schemaversion')
  if (schema !== null && !/common cartridge/i.test(schema))
    throw new FormatRefusal('schema-unread', name, { schema })
  const version = stated === null ? byNamespace : /^1\.[0-3](?=\.|$)/.exec(stated)?.[0]
  if (!version) throw new FormatRefusal('cartridge-version', name, { stated })
  if (stated === null) findings.add('version-unstated', where, { version })
  else if (byNamespace === undefined)
    findings.add('namespace-unlike', where, { version, namespace: manifest.namespace })
  else if (byNamespace !== version) findings.add('versions-differ', where, { version, byNamespace })
  return version
}
