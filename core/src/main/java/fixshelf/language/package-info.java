/// SQL expression text to a typed expression tree with positions; the function catalogue.
///
/// What comes in: the body of a fix or an expression in a job line, and a [Scope] of names and fixes. What goes
/// out: an [Expr], or problems that point at the very characters. The text is prepared by [Lexer] and
/// [ExpressionParser], parsed by Calcite, and checked by [Checker] against the catalogue [Functions].
///
/// Read first: [Expr], [FunctionDef], [Checker]. To add a function, add one constant to a class such as
/// [TextFunctions] and say in each renderer how its language writes it; a test names what is missing.
///
/// What is not here: how a language writes an expression (`render`) and what a page looks like (`shelf`).
///
/// `regexp_replace(text, ' +', ' ')` becomes `Call(regexp_replace, [Name(text), Literal(' +'), Literal(' ')])`.
@NullMarked
package fixshelf.language;

import org.jspecify.annotations.NullMarked;
