/// What the languages of data frames share: fixes are functions of a module, a job is a function
/// whose lines are statements.
///
/// [FrameLanguage] writes the module and [FrameJobs] the statements of a job; a language says how a
/// value, a relation and a function are written. A relation that none of them has a word for is
/// written by a helper that stands before the code.
///
/// Read first: [FrameLanguage], [FrameJobs].
@NullMarked
package fixshelf.render.frame;

import org.jspecify.annotations.NullMarked;
