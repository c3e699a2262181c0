package fixshelf.work;

import fixshelf.shelf.DelimitedText;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// What an output is written as, which the ending of its name says.
enum OutputForm {
    COMMAS("FORMAT csv", "csv", "txt"),
    TABS("FORMAT csv", "tsv"),
    PARQUET("FORMAT parquet, COMPRESSION zstd", "parquet"),
    /// A list of objects.
    JSON("", "json"),
    /// An object on each line.
    JSON_LINES("", "jsonl", "ndjson"),
    WORKBOOK("", "xlsx"),
    /// A view, and no rows.
    DEFINITION("", "sql"),
    /// A table of a database that is a file.
    SQLITE("", "sqlite", "sqlite3", "db"),
    DUCKDB("", "duckdb"),
    /// A table of a database server, which no name of a file says.
    SERVER("");

    private final String options;
    private final List<String> endings;

    OutputForm(String options, String... endings) {
        this.options = options;
        this.endings = List.of(endings);
    }

    /// The form of a file; empty for an ending that is not known.
    static Optional<OutputForm> of(Path file) {
        String name = String.valueOf(file.getFileName());
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return name.contains(".")
                ? Arrays.stream(values())
                        .filter(f -> f.endings.contains(ending))
                        .findFirst()
                : Optional.empty();
    }

    /// All endings, for messages: `.csv, .txt, .tsv`.
    static String endings() {
        return Arrays.stream(values())
                .flatMap(f -> f.endings.stream())
                .map(e -> "." + e)
                .collect(Collectors.joining(", "));
    }

    /// Whether it is a table of a database, so that others may stand beside it.
    boolean isTable() {
        return this == SQLITE || this == DUCKDB || this == SERVER;
    }

    /// Whether the engine writes it itself, row by row as they come.
    boolean isByEngine() {
        return !options.isEmpty();
    }

    /// What is said to the engine, behind COPY … TO.
    String options(DelimitedText text) {
        return switch (this) {
            case COMMAS -> TextOutput.options(text, ',');
            case TABS -> TextOutput.options(text, '\t');
            default -> options;
        };
    }
}
