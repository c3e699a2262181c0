/// Value types, tables of values, null, and how values are written.
///
/// Nothing comes in; [Type], [Column], [Literals] and [Visible] go out to every other package. A value is a plain
/// Java object: `String`, `Long`, `BigDecimal`, `Double`, `Boolean`, `LocalDate`, `LocalDateTime`, or `null`.
/// Text compares by code point; null is equal to nothing and is not the empty text.
///
/// Read first: [Type]. To add a type, add a record there; the compiler lists the places to complete.
@NullMarked
package fixshelf.type;

import org.jspecify.annotations.NullMarked;
