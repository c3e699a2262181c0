/// Running: DuckDB inside the process, PostgreSQL over JDBC, Python with pandas as a process.
///
/// What comes in: [fixshelf.plan.Plan]s for DuckDB, and [Evaluation]s (a fix with rows of arguments) for every
/// [FixEngine]. What goes out: tables that stay in DuckDB and are paged through with [Grid]s, and [Answer]s.
///
/// A [DuckSession] may touch exactly the files that it was opened for. Extension download, all other file access and
/// a change of these settings are switched off before the first statement runs.
///
/// Read first: [DuckSession], [PlanSql], [FixEngine]. To add an engine, implement [FixEngine] and name it in
/// [FixEngines].
@NullMarked
package fixshelf.engine;

import org.jspecify.annotations.NullMarked;
