/// The SQL languages.
///
/// What they share stands in [SqlLanguage]; a language holds only what it says differently, in one table of
/// [SqlLanguage.Form]s by function. Precedence is kept by [Sql], so nobody places parentheses by
/// hand. A job is one query with a name for each line ([SqlJobs]), its relations are written by
/// [RelationSql]. Languages that are written from their documentation, and never run, extend
/// [DocumentedSql].
///
/// Read first: [SqlLanguage], [DuckDbLanguage], [RelationSql].
///
/// `strpos(a, b) > 0` is `instr(a, b) > 0` in SQLite.
@NullMarked
package fixshelf.render.sql;

import org.jspecify.annotations.NullMarked;
