package fixshelf.standin;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Writes rows as a file is read: what these options read of it is what was written.
final class DelimitedRows {
    private final Writer out;
    private final ReadOptions options;

    DelimitedRows(Writer out, ReadOptions options) {
        this.out = out;
        this.options = options;
    }

    void heading(List<String> names) {
        write(names.stream().<@Nullable String>map(n -> n).toList());
    }

    void write(List<@Nullable String> cells) {
        try {
            for (int i = 0; i < cells.size(); i++) {
                out.write(i == 0 ? "" : options.separator());
                out.write(field(cells.get(i), cells.size()));
            }
            out.write("\n");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String field(@Nullable String cell, int width) {
        if (cell == null) {
            return options.nullWords().contains("") || options.nullWords().isEmpty()
                    ? ""
                    : options.nullWords().getFirst();
        }
        boolean bare = !options.nullWords().contains(cell)
                && !cell.contains("\n")
                && !cell.contains("\r")
                && (options.quote().isEmpty() || !cell.contains(options.quote()))
                && (options.separator().isEmpty() || !cell.contains(options.separator()))
                && !(cell.isEmpty() && width == 1)
                && cell.equals(cell.strip());
        String quote = options.quote();
        return bare || quote.isEmpty() ? cell : quote + cell.replace(quote, quote + quote) + quote;
    }
}
