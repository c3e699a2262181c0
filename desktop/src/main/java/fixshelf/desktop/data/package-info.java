/// *Data*: what there is, and a good look at it.
///
/// [DataModel] is what is known of the chosen dataset, without nodes. Its pages: columns with what
/// is odd in them, rows, counts, comparisons, a stand-in that may be sent. Files, addresses and
/// tables of a file come in by [Bringing].
///
/// Read first: [DataPlace], [DataModel], [ColumnsPage].
@NullMarked
package fixshelf.desktop.data;

import org.jspecify.annotations.NullMarked;
