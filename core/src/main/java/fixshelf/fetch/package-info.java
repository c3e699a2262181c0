/// What is in no file here: rows of database servers and of pages of the web, and rows that were
/// typed in. They are kept as a copy in the shelf's own folder, whole or not at all, and read from
/// there like every other file.
///
/// What comes in: [fixshelf.plan.ReadOptions] of such a kind. What goes out: a
/// [fixshelf.source.SourceFile] that reads the copy, and says where it is from and how old it is.
/// Nothing on the network is touched before the user allowed it ([Consent]), and no password ever
/// stands in a page ([Secrets]).
@org.jspecify.annotations.NullMarked
package fixshelf.fetch;
