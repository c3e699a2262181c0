/// *Shelf*: fixes, table fixes and loaders to read, to write and to try.
///
/// [ShelfPlace] lists them; on the right stands a page to read ([ReaderPage]), a fix that is
/// written ([WritingPlace]) with its proof beside it ([EvidencePage]), or a table fix or loader
/// ([TablePlace]), whose lines are a job card as in `jobs`.
///
/// Read first: [ShelfPlace], [WritingPlace], [TablePlace].
@NullMarked
package fixshelf.desktop.shelf;

import org.jspecify.annotations.NullMarked;
