/// What the window works on, without any nodes.
///
/// [Workbench] holds the shelf with its drafts and everything that is computed about it. What takes time goes through
/// [Background], the only class that crosses threads. [UserSettings] are what one user chose, beside every shelf.
///
/// Read first: [Workbench], [Background].
@NullMarked
package fixshelf.desktop.workbench;

import org.jspecify.annotations.NullMarked;
