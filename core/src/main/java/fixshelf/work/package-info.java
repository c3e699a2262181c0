/// Jobs at work: planning one against its file, previewing it line by line, running it whole.
///
/// What comes in: a [fixshelf.shelf.Shelf] and a job. What goes out: [LineEffect]s (rows, columns, cells changed,
/// values lost), pages of rows for a grid, and output files that appear whole or not at all.
///
/// A [Preview] stages the source once and keeps the table of every line, so that an edit computes only what comes
/// after it. A [JobRun] reads the source straight into as few queries as the job allows.
///
/// [JobParity] runs a job as code of other languages over the first rows of its source, and compares. [JobSources]
/// takes the mapping of an argument from a table.
///
/// Read first: [PlannedJob], [Preview], [JobRun].
@NullMarked
package fixshelf.work;

import org.jspecify.annotations.NullMarked;
