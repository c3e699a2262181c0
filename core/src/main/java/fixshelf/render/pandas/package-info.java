/// Python with pandas.
///
/// [PandasLanguage] is the language, [PandasWriter] writes expressions over series, with a class for each group of
/// functions, [PandasJobs] the lines of a job over frames. [Py] keeps precedence; helpers stand in [PandasTables].
///
/// Read first: [PandasLanguage], [PandasWriter], [PandasJobs].
///
/// `upper(name)` is `name.str.upper()`.
@NullMarked
package fixshelf.render.pandas;

import org.jspecify.annotations.NullMarked;
