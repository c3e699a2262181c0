/// The shelf in another language: a folder with one file of functions and, if wanted, the cases as tests.
///
/// What comes in: a [fixshelf.shelf.Shelf] and a [fixshelf.render.Language]. What goes out: files that run without
/// Fix Shelf, and what had to be left out and why. The first line of each file holds a number made from the rest,
/// so that a file that was changed by hand is not replaced unseen.
///
/// Read first: [Export]. To add tests for a language, add a class such as [Pytest] and name it in [Export].
@NullMarked
package fixshelf.export;

import org.jspecify.annotations.NullMarked;
