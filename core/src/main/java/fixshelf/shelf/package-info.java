/// The shelf on disk: fixes, datasets and jobs as pages; reading them, changing them, keeping them.
///
/// A page is text first. [FixPages], [JobPages] and [DatasetPages] read it into records that know where each part
/// stands; [FixEdits] and [JobEdits] change the text of one part and leave every other byte as it was; [PageFiles]
/// puts a text on disk whole or not at all. [Shelf] holds all pages and compiles fixes when they are asked for.
///
/// Read first: [Shelf], [FixPage], [JobPage]. A broken page is kept, with its problems, beside the others.
///
/// The formats are described in `docs/format.md`.
@NullMarked
package fixshelf.shelf;

import org.jspecify.annotations.NullMarked;
