/// The operations that are built in, each in a file of its own; [fixshelf.operations.Operations] lists them.
@NullMarked
package fixshelf.operations;

import org.jspecify.annotations.NullMarked;
