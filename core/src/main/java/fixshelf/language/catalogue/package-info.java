/// Every function and operator there is: names, slots, what it gives, what null does, examples.
///
/// What goes out: [Functions#ALL], from which the checker, help, completion, documents and all
/// languages read. A function is a constant of a class of its group, such as [TextFunctions],
/// written with [Entry]. [DateLayout] and [CalendarNames] are how days are written, [Constants]
/// what is known without any data, [Trees] short ways to write a tree of calls.
///
/// Read first: [Functions], [TextFunctions], [Entry]. To add a function, add one constant, and say
/// in each renderer how its language writes it, or in `emulation` how it is said with others; a
/// test names what is missing.
///
/// `define(Group.TEXT, "trim", text("text"))`, a sentence about it and three examples are all that a function is.
@NullMarked
package fixshelf.language.catalogue;

import org.jspecify.annotations.NullMarked;
