/** The types of columns that every migration writes its tables with. */

/** Keys, codes and other identifiers that come from outside: compared letter by letter. */
export const key = 'VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
/** A short word of our own: a kind, an action. */
export const word = 'VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
/** What people read and look for: case and accents do not matter. */
export const title = 'VARCHAR(500) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
/** A name of ours that is compared letter by letter. */
export const shortText = 'VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
export const longText = 'TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
/**
 * An identifier of ours, a UUID as text. Never the type UUID: a Galera cluster's certification does not see a foreign key
 * on such a column (docs/decisions/identifiers.md).
 */
export const id = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin'
/** SHA-256 of a body, in hexadecimal. */
export const hash = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin'
/** `YYYY-MM-DD` */
export const civilDate = 'CHAR(10) CHARACTER SET ascii COLLATE ascii_bin'
/** `YYYY-MM-DDTHH:MM`, in the zone of the course's term. */
export const wallTime = 'CHAR(16) CHARACTER SET ascii COLLATE ascii_bin'
/** `HH:MM` */
export const clockTime = 'CHAR(5) CHARACTER SET ascii COLLATE ascii_bin'
/** An instant, in UTC. */
export const instant = 'DATETIME(3)'
/** Points and weights: integers of ten-thousandths in core. */
export const decimal = 'DECIMAL(12,4)'

/** What follows the columns of every table. */
export const tableOptions = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci'
