/// Tables as an algebra: what a line of a job means, in a dozen relations.
///
/// What comes in: fields with numbers of their own, and typed expressions over them. What goes out: a
/// [fixshelf.table.Relation], which languages write, and previews and runs work out. Nothing here knows an operation,
/// a page or an engine.
@NullMarked
package fixshelf.table;

import org.jspecify.annotations.NullMarked;
