/// Everything that can go wrong, as values.
///
/// What comes in: a [SourceText] and a [Span] of offsets in it. What goes out: [Problem]s, collected in an
/// [Outcome] instead of thrown, so that one look shows all of them. The window, the command line and the tests
/// print the same problem with the same [ProblemPrinter].
///
/// Read first: [Problem], [Outcome], [SourceText]. To add a kind of problem, add one constant to [Code].
///
/// Lines and columns are 1-based; columns count code points. Offsets are 0-based UTF-16 positions, as in Java.
@NullMarked
package fixshelf.problem;

import org.jspecify.annotations.NullMarked;
