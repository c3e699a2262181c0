package fixshelf.shelf;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// A property of a table fix that must hold for every table.
///
/// @param of what it is about: parameters that are columns, or names of columns
/// @param written as it stands on the page
public record TablePromise(Kind kind, List<String> of, String written) {
    public TablePromise {
        of = List.copyOf(of);
    }

    /// What is promised. After `unique_by` and `filled` stand parameters, or names of columns: `unique_by key`.
    public enum Kind {
        IDEMPOTENT("idempotent", "Twice is the same as once", false),
        ROWS_KEPT("rows_kept", "As many rows come out as went in", false),
        ROWS_NOT_MORE("rows_not_more", "No more rows come out than went in", false),
        ROWS_ONCE("rows_once", "Each row comes out once or leaves, none is new", false),
        COLUMNS_KEPT("columns_kept", "Every column is still there", false),
        UNIQUE_BY("unique_by", "No two rows with the same", true),
        FILLED("filled", "Never missing:", true);

        private final String word;
        private final String sentence;
        private final boolean takesColumns;

        Kind(String word, String sentence, boolean takesColumns) {
            this.word = word;
            this.sentence = sentence;
            this.takesColumns = takesColumns;
        }

        public boolean takesColumns() {
            return takesColumns;
        }
    }

    /// A promise that takes no columns.
    public static TablePromise of(Kind kind) {
        return new TablePromise(kind, List.of(), kind.word);
    }

    /// Reads a promise as it is written on a page; empty when it is not one.
    static Optional<TablePromise> read(String written) {
        String text = written.strip();
        String[] parts = text.split("[\\s,]+");
        Optional<Kind> kind = Arrays.stream(Kind.values())
                .filter(k -> k.word.equals(parts[0].toLowerCase(Locale.ROOT)))
                .findFirst();
        List<String> of = Arrays.asList(parts).subList(1, parts.length);
        return kind.filter(k -> k.takesColumns != of.isEmpty()).map(k -> new TablePromise(k, of, text));
    }

    /// The words that can be written, for messages.
    static String known() {
        return Arrays.stream(Kind.values())
                .map(k -> k.takesColumns ? k.word + " key" : k.word)
                .collect(Collectors.joining("; "));
    }

    public String sentence() {
        return of.isEmpty() ? kind.sentence : kind.sentence + " " + String.join(", ", of);
    }
}
