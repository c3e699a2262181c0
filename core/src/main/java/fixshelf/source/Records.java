package fixshelf.source;

import fixshelf.type.Type;
import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// The rows of a file that is no delimited text, one by one, as texts.
interface Records extends Closeable {
    /// The names of the columns as they are written; blank where there is none. Asked before any row.
    List<String> names();

    /// The types that the source says of its columns, whose values come as texts; empty where it says none.
    default List<Type> types() {
        return List.of();
    }

    /// The next row; empty at the end. A file that is broken is a [fixshelf.problem.ProblemException].
    Optional<Row> next() throws IOException;

    /// What is worth saying of the rows that were read: the extent that was used, cells with errors.
    ///
    /// @param whole whether all were read
    default List<String> notes(boolean whole) {
        return List.of();
    }

    /// A row, as wide as there are names.
    ///
    /// @param line where it stands in the file, from 1
    /// @param wrong why it does not fit; empty where it does
    /// @param errors the cells of it that could not be read, and are missing
    record Row(int line, List<@Nullable String> cells, String wrong, List<Broken> errors) {
        Row(int line, List<@Nullable String> cells) {
            this(line, cells, "", List.of());
        }
    }

    /// The cells of a row, as many as there are columns; those of words that mean nothing are missing.
    static List<@Nullable String> cells(List<@Nullable String> row, int width, List<String> nullWords) {
        List<@Nullable String> cells = new ArrayList<>(row);
        cells.replaceAll(c -> c != null && nullWords.contains(c) ? null : c);
        while (cells.size() < width) {
            cells.add(null);
        }
        return cells;
    }

    /// A cell that could not be read.
    ///
    /// @param column its place in the row, from 0
    /// @param words where it is in the source, and what stands there: `E5 #DIV/0!`
    record Broken(int column, String words) {}
}
