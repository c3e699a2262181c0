/// Rows of a job in a table of a database: made anew, instead of another, or behind what is there; whole or not at all.
///
/// What comes in: a [TableTarget] and a query in a session. What goes out: a [DatabaseTable] whose rows nobody sees
/// before it is committed. Values that a column cannot hold are counted before the first row is sent.
@org.jspecify.annotations.NullMarked
package fixshelf.output;
