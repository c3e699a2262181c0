/// The typed tree of an expression, and what stands in it.
///
/// What comes in: nothing; everything else builds these. An [Expr] is one of five forms; operators
/// and functions are all calls of a [FunctionDef], fixes of a [Definition]. [CommonType] and
/// [Digits] say what type several values have together. [Lexer] knows the signs and words of the
/// text, [Printer] writes a tree as such text again.
///
/// Read first: [Expr], [FunctionDef], [Definition]. A form is added to [Expr], and the compiler
/// then lists who has to know of it; a function is none, it goes into the `catalogue`.
///
/// `upper(name)` is `Call(upper, [Name(name, text)], text)`.
@NullMarked
package fixshelf.language.tree;

import org.jspecify.annotations.NullMarked;
