/// What places are made of: grids, blanks, lists that open, code with its colours, facing pages.
///
/// A [Command] is one thing that can be done, from which bar, keys and jump field are made; a
/// [Place] says which of them there are. No part knows what a fix, a job or a dataset is; they are
/// given what they show.
///
/// Read first: [Ui], [Command], [RowsGrid].
@NullMarked
package fixshelf.desktop.parts;

import org.jspecify.annotations.NullMarked;
