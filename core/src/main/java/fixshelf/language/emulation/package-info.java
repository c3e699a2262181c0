/// Trees to simpler trees, so that every language says them in its own way and none can differ.
///
/// What comes in: a call. What goes out: the same in simpler calls ([Emulations]), in which constants are known that a
/// function has to know ([ConstantArguments]); the body of a fix in place of its call ([Inliner]);
/// a replacement that asks first whether a text could change at all ([Untouched]); a fix with all
/// worked out that needs no data ([Folding]).
///
/// Read first: [Emulations], [PartEmulations], [Inliner]. To write a function with others, add it
/// to the class of its group.
///
/// `ltrim(text, ':')` becomes `regexp_replace(text, '^[:]+', '')`.
@NullMarked
package fixshelf.language.emulation;

import org.jspecify.annotations.NullMarked;
