/// *Languages*: a fix, a job or the whole shelf in every language, and whether they agree.
///
/// [InLanguages] is what the place shows of the one that is chosen; [ParityModel] asks the engines,
/// without nodes, and the boards show its answers.
///
/// Read first: [LanguagesPlace], [InLanguages], [ParityModel].
@NullMarked
package fixshelf.desktop.languages;

import org.jspecify.annotations.NullMarked;
