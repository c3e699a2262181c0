/// Measurements, side by side with hand-written code: whole processes, medians, peak memory.
///
/// [Bench] starts each contender as a process of its own, one after the other in turn, and prints a table. The
/// contenders are in `bench/scripts` and in [OurJob].
@NullMarked
package fixshelf.bench;

import org.jspecify.annotations.NullMarked;
