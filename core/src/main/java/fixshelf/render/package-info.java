/// A fix, or a whole job, as code of a query language.
///
/// What comes in: a typed expression, a [fixshelf.language.tree.Definition], or a [JobCode]. What
/// goes out: text that can be pasted as it is, or a problem that names what the language cannot
/// say. One class a language, found by `ServiceLoader`.
///
/// Its rooms: `sql` holds nine languages less what they share, `frame` what two languages of data
/// frames share, `pandas` and `r` those two. Here stands what all share: patterns in the flavour of
/// each engine ([RegexWriter]), names that are taken ([TakenNames]), fixes in the order of their
/// calls ([Calls]).
///
/// Read first: [Language], [Languages], [JobCode]. To add a language, see `docs/add-a-language.md`.
@NullMarked
package fixshelf.render;

import org.jspecify.annotations.NullMarked;
