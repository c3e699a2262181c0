/// Lines of a job, as calls of operations, to the tables that they mean.
///
/// What comes in: [Line]s, whose blanks hold what their author [Written], and the columns of the source. What goes
/// out: a [Plan] of [Step]s, each with the relation that its line makes of the line before. A blank knows its [Kind],
/// and the kind knows how it is read, said, typed, completed and wrong; so nothing here knows a single operation.
///
/// Read first: [Operation], [Blank], [Kind], [Planner]. To add an operation, see `docs/add-an-operation.md`.
@NullMarked
package fixshelf.plan;

import org.jspecify.annotations.NullMarked;
