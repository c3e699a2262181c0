/// Loaders: delimited text, workbooks, JSON, Parquet, lines cut at fixed places.
///
/// What comes in: [fixshelf.plan.ReadOptions] and a file. What goes out: the columns, and a relation that DuckDB can
/// read. [DelimitedShape] finds the separator, the encoding and the heading by looking; [RecordReader] reads records
/// exactly, one by one.
///
/// Well-formed files are read by DuckDB itself, in parallel. It is asked to be strict; when it refuses, [CarefulRows]
/// reads the file record by record, writes a clean copy for DuckDB, and lists every row that does not fit with its
/// line. Neither way lets a row vanish. Files of other kinds are [Records] of texts, which go the same careful way;
/// only Parquet is read by DuckDB itself. Sources are opened for reading only.
@NullMarked
package fixshelf.source;

import org.jspecify.annotations.NullMarked;
