/// Running: DuckDB and SQLite inside the process, PostgreSQL and MariaDB over JDBC, Python and R as processes,
/// Spark in the process of its module.
///
/// What comes in: [fixshelf.plan.Plan]s for DuckDB, and for every [FixEngine] [Evaluation]s (a fix with rows of
/// arguments) and [fixshelf.render.JobCode]s with the rows of their source. What goes out: tables that stay in
/// DuckDB and are paged through with [Grid]s, and [Answer]s.
///
/// A [DuckSession] may touch exactly the files that it was opened for. Extension download, all other file access and
/// a change of these settings are switched off before the first statement runs.
///
/// Work done under a [Stop] can be ended from another thread.
///
/// Read first: [DuckSession], [Rows], [FixEngine]. To add an engine, implement [FixEngine] and name it in
/// [FixEngines].
@NullMarked
package fixshelf.engine;

import org.jspecify.annotations.NullMarked;
