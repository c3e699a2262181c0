/// R with dplyr.
///
/// [RLanguage] is the language, [RWriter] writes expressions over vectors, with a class for each
/// group of functions, [RJobs] the lines of a job over tibbles. [R] keeps precedence; helpers stand
/// in [RTables].
///
/// Read first: [RLanguage], [RWriter], [RJobs].
///
/// `upper(name)` is `stringr::str_to_upper(name)`.
@NullMarked
package fixshelf.render.r;

import org.jspecify.annotations.NullMarked;
