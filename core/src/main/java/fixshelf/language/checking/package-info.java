/// Text to a typed tree, or problems that point at the very characters.
///
/// What comes in: the text of an expression ([Checker]) or of a body with its named steps
/// ([BodyParser]), and a [Scope] of columns, parameters and fixes. The text is prepared by
/// [ExpressionParser], parsed by Calcite, and checked against the catalogue: slots, types,
/// constants. A constant alone, of which a shelf has thousands, is read by [WrittenConstants].
///
/// Read first: [Checker], [Scope], [ExpressionParser].
///
/// `amount > 'x'` is a problem at `'x'`: a number cannot be compared with a text.
@NullMarked
package fixshelf.language.checking;

import org.jspecify.annotations.NullMarked;
