/// SQL expression text to a typed expression tree with positions; the function catalogue.
///
/// What comes in: the body of a fix or an expression in a job line, and a
/// [fixshelf.language.checking.Scope] of names and fixes. What goes out: a
/// [fixshelf.language.tree.Expr], or problems that point at the very characters.
///
/// Its rooms, each of which knows only those before it:
/// - `tree`: the typed tree, what a function and a fix are, and the signs of the text;
/// - `pattern`: regular expressions, as a tree of their own;
/// - `catalogue`: all functions, with their examples;
/// - `emulation`: calls in simpler ones, fixes put in place of their calls;
/// - `checking`: text to a tree, or problems.
///
/// What is not here: how a language writes an expression (`render`) and what a page looks like (`shelf`).
///
/// `regexp_replace(text, ' +', ' ')` becomes `Call(regexp_replace, [Name(text), Literal(' +'), Literal(' ')])`.
@NullMarked
package fixshelf.language;

import org.jspecify.annotations.NullMarked;
