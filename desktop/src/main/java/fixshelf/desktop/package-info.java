/// The window: facing pages, on the left what you say, on the right what it does.
///
/// [Frame] is the window: a bar with places and the jump field, the place, a status line. Each place is a view over the
/// workbench and has a room of its own: `shelf`, `data`, `jobs`, `languages`. `parts` are what they
/// are made of, `workbench` is what they look at and do.
///
/// All colours and sizes are in `tokens-light.css` and `tokens-dark.css`; the views name style classes only.
///
/// Read first: [Frame], [fixshelf.desktop.workbench.Workbench], [fixshelf.desktop.jobs.JobsPlace].
@NullMarked
package fixshelf.desktop;

import org.jspecify.annotations.NullMarked;
