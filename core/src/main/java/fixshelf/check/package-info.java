/// Proof: cases, promises and parity, run for real, and reports of them.
///
/// What comes in: fixes with their cases and promises, and a [fixshelf.engine.FixEngine]. What goes out:
/// [CaseResult]s and [PromiseResult]s with what was expected and what came, and JUnit XML of both.
///
/// [Parity] runs a [Subject] in two engines and compares the answers row by row; [ParityReport] is the board.
///
/// Read first: [Cases], [Promises], [Parity]. To add a promise, add a constant to
/// [fixshelf.shelf.Promise.Kind]; the compiler shows what else it needs.
@NullMarked
package fixshelf.check;

import org.jspecify.annotations.NullMarked;
