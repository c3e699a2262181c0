/// A fix, or a whole job, as code of a query language.
///
/// What comes in: a typed expression, a [fixshelf.language.Definition], or a [JobCode]. What goes out: text that
/// can be pasted as it is, or a problem that names what the language cannot say. One class a language, found by
/// `ServiceLoader`: [DuckDbLanguage], [PostgresLanguage], [PandasLanguage].
///
/// SQL languages share [SqlLanguage] and hold only what they say differently, in one table of [SqlLanguage.Form]s by
/// function. Precedence is kept by [Sql], so nobody places parentheses by hand. Patterns are written by
/// [RegexWriter] in the flavour of each engine.
///
/// Languages that are written from their documentation, and never run, extend [DocumentedSql]. A job is written line by
/// line ([SqlJobs], [PandasJobs], [RJobs]); each line that cannot be said is named.
///
/// Read first: [Language], [SqlLanguage], [DuckDbLanguage].
@NullMarked
package fixshelf.render;

import org.jspecify.annotations.NullMarked;
