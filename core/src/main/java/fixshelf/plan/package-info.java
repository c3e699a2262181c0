/// Job lines, as a job says them, to steps, as an engine runs them.
///
/// What comes in: [Line]s and the columns of the source. What goes out: a [Plan] of [Step]s, each with the columns
/// that it gives, in which every name is resolved and every fix is written out as an expression. What depends on the
/// order of rows says so in its step.
///
/// Read first: [Line], [Step], [Planner]. To add an operation, add a record to [Line] and, if no step can say it, to
/// [Step]; the compiler lists the rest.
@NullMarked
package fixshelf.plan;

import org.jspecify.annotations.NullMarked;
