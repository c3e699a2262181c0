/// The window: facing pages, on the left what you say, on the right what it does.
///
/// [Workbench] holds the shelf with its drafts and everything that is computed about it; it knows no nodes. [Frame]
/// is the window: a bar with places and the jump field, the place, a status line. Each place is a view over the
/// workbench: [ShelfPlace], [WritingPlace], [JobsPlace], [LanguagesPlace], which shows a fix, a job or
/// the whole shelf ([InLanguages]). What takes time goes through
/// [Background], the only class that crosses threads.
///
/// All colours and sizes are in `tokens-light.css` and `tokens-dark.css`; the views name style classes only.
///
/// Read first: [Workbench], [Frame], [JobsPlace].
@NullMarked
package fixshelf.desktop;

import org.jspecify.annotations.NullMarked;
