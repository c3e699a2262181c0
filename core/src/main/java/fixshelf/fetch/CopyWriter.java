package fixshelf.fetch;

import java.io.BufferedWriter;
import java.io.Closeable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Writes rows as delimited text in which every value is quoted, so that what is missing, and stands without quotes, is
/// told from an empty text.
public final class CopyWriter implements Closeable {
    private final BufferedWriter out;
    private long rows = -1;

    public CopyWriter(Path file) throws IOException {
        out = Files.newBufferedWriter(file, StandardCharsets.UTF_8);
    }

    /// The first row holds the names.
    public void row(List<? extends @Nullable String> cells) throws IOException {
        for (int i = 0; i < cells.size(); i++) {
            if (i > 0) {
                out.write(',');
            }
            String cell = cells.get(i);
            // One column without a value would be a blank line, which is no row.
            if (cell != null) {
                out.write('"');
                out.write(cell.indexOf('"') < 0 ? cell : cell.replace("\"", "\"\""));
                out.write('"');
            } else if (cells.size() == 1) {
                out.write(MISSING);
            }
        }
        out.write('\n');
        rows++;
    }

    /// What stands for a missing value where there is one column only. Unicode reserves it, so no value is like it.
    static final char MISSING = '\uFDD1';

    /// How many rows were written, without that of the names.
    long rows() {
        return Math.max(rows, 0);
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
