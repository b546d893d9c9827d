import { id, key, title } from '../columns'

/** Organisations, the people in them, and the duties people have for an organisation and all below it. */
export const people = [
  `CREATE TABLE orgs (
    id ${id} PRIMARY KEY,
    source_id ${key} NOT NULL UNIQUE,
    name ${title} NOT NULL,
    type ${key} NOT NULL,
    parent_source_id ${key} NULL
  )`,
  `CREATE TABLE people (
    id ${id} PRIMARY KEY,
    source_id ${key} NOT NULL UNIQUE,
    login ${key} NULL UNIQUE,
    given_name ${title} NOT NULL,
    family_name ${title} NOT NULL,
    email ${key} NULL,
    password ${key} NULL,
    active BOOLEAN NOT NULL DEFAULT TRUE
  )`,
  // Instructors and assistants are so by enrolment; these two are so for an organisation.
  `CREATE TABLE duties (
    person_id ${id} NOT NULL,
    org_id ${id} NOT NULL,
    duty ENUM('coordinator', 'office') NOT NULL,
    PRIMARY KEY (person_id, org_id, duty),
    FOREIGN KEY (person_id) REFERENCES people (id),
    FOREIGN KEY (org_id) REFERENCES orgs (id)
  )`,
]
