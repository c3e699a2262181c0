/// What is in a dataset: of each column how it reads, what is filled, what is odd and what would help; counts of one,
/// two or three columns; two tables held against each other; a drawing of any of it.
///
/// What comes in: a [fixshelf.source.SourceFile]. What goes out: [ColumnLook]s with their [Finding]s, [Remedy]s that
/// were tried on the values, [CountTable]s, [RowsCompared]. Nothing here changes a dataset.
///
/// A [DataLook] stages the rows once. Of each column the engine gives the distinct values with how often they come,
/// and a [ColumnTally] looks at each of them once, in plain Java: at its characters ([Characters]) and at how it is
/// laid out ([Layout]).
///
/// Read first: [DataLook], [ColumnTally], [Oddity]. To add something to be found, add it to [Oddity] and find it in
/// [ColumnFindings], or in [TableFindings] where it is about rows.
@NullMarked
package fixshelf.profile;

import org.jspecify.annotations.NullMarked;
