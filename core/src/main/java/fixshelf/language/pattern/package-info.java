/// Regular expressions that mean the same in every engine, as a tree.
///
/// What comes in: a pattern as text ([RegexParser]), a replacement ([Replacement]), what LIKE is
/// given ([LikePattern]). What goes out: a [Regex], or a problem at the very sign; what can be said
/// of it without any text ([Regexes], [Automaton]); one that was put together by what stands before
/// and after ([PatternHelp]).
///
/// Read first: [Regex], [RegexParser], [Regexes]. What is not here: how a flavour writes it (`render`).
///
/// `[0-9]+` becomes one or more of a class of ten characters.
@NullMarked
package fixshelf.language.pattern;

import org.jspecify.annotations.NullMarked;
