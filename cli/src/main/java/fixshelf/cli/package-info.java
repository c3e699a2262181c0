/// The command line: `fixshelf` and its commands.
///
/// Each command is one class; what they share is in [ShelfOption] and [Output]. Exit codes: 0 fine, 1 cases fail or
/// problems were found, 2 wrong use, 3 a fault of the program. With `--json` a command prints one JSON document.
///
/// Read first: [FixshelfCommand]. To add a command, write a class and name it there.
@NullMarked
package fixshelf.cli;

import org.jspecify.annotations.NullMarked;
