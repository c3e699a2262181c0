package fixshelf.plan;

import fixshelf.type.Type;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/// How a file is read. All values are read as text.
///
/// @param path the file, relative to the shelf or absolute, or the address of a server; may hold
/// `{name}` of a parameter or of the environment
/// @param separator one character, or several that stand together; empty where a line is one field
/// @param quote one character, or empty for none; a quote inside quotes is written twice
/// @param encoding `latin-1`, or a name that Java knows, such as `utf-8` or `windows-1252`
/// @param heading whether the first row holds the names
/// @param nullWords values that mean missing; the empty text stands for a field that is empty and not quoted
/// @param leaveOutBadRows whether rows of another shape are left out and listed, instead of stopping a run
/// @param form what kind of file it is; empty where that is seen from the file
public record ReadOptions(
        String path,
        String separator,
        String quote,
        String encoding,
        boolean heading,
        List<String> nullWords,
        boolean leaveOutBadRows,
        Optional<Form> form) {

    /// A kind of file, and what is said of that kind alone.
    public sealed interface Form {
        /// The word for it on a page.
        String word();

        /// Fields that a separator or line ends set apart.
        record Delimited() implements Form {
            @Override
            public String word() {
                return "delimited";
            }
        }

        /// A sheet of a workbook, a named table in one, or a block of cells.
        ///
        /// @param sheet its name; empty for the first that is shown
        /// @param block as `B4:F40`, or the name of a table; empty for all that is used
        /// @param errorsAsText whether cells with an error keep its word, instead of being missing
        /// @param serials whether days and times stay the numbers that they are stored as
        record Workbook(String sheet, String block, boolean errorsAsText, boolean serials) implements Form {
            @Override
            public String word() {
                return "workbook";
            }
        }

        /// Objects, in a list or one after another.
        ///
        /// @param rows the names that lead to the list, as `report.visits`; empty where it is the whole
        /// @param each the column whose list gives a row for each of its elements; empty where a
        /// list stays text
        record Json(String rows, String each) implements Form {
            @Override
            public String word() {
                return "json";
            }
        }

        record Parquet() implements Form {
            @Override
            public String word() {
                return "parquet";
            }
        }

        /// Tables on pages of a PDF.
        ///
        /// @param pages numbers from 1, as `2`, `2-4` or `2, 4`; empty for all
        /// @param table the number of the table on each of them; 0 where there is only one
        record Pdf(String pages, int table) implements Form {
            @Override
            public String word() {
                return "pdf";
            }
        }

        /// A table of a database that is a file.
        ///
        /// @param engine `sqlite` or `duckdb`
        /// @param table its name; empty where there is only one, or where `query` says more
        /// @param query a SELECT over the tables of the file; empty for a table as it is
        record Database(String engine, String table, String query) implements Form {
            @Override
            public String word() {
                return engine;
            }
        }

        /// What is in no file here: it is copied first, and the copy is read.
        sealed interface Elsewhere extends Form {
            /// How long a copy is good; zero for one that is made anew for each run and each opening of the shelf.
            default Duration keep() {
                return Duration.ZERO;
            }
        }

        /// A table of a database server.
        ///
        /// @param engine `postgresql`, `mariadb`, or `jdbc` for a driver that the user has
        /// @param table its name; empty where there is only one, or where `query` says more
        /// @param query a SELECT in the server's own language; empty for a table as it is
        /// @param user whose rights are used; empty for what the driver takes
        /// @param passwordFrom the variable of the system that holds the password; empty for none
        /// @param seconds how long a query may take
        record Server(
                String engine, String table, String query, String user, String passwordFrom, int seconds, Duration keep)
                implements Elsewhere {
            @Override
            public String word() {
                return engine;
            }

            /// The same, of this table.
            public Server of(String other) {
                return new Server(engine, other, "", user, passwordFrom, seconds, keep);
            }
        }

        /// A table of a page of the web.
        ///
        /// @param table its number on the page from 1, or words of its caption; empty where there is only one
        /// @param heading whether its first row holds the names
        /// @param seconds how long the page may take
        record Web(String table, boolean heading, int seconds, Duration keep) implements Elsewhere {
            @Override
            public String word() {
                return "web";
            }
        }

        /// A table of a page of the web that was saved as a file.
        ///
        /// @param table its number on the page from 1, or words of its caption; empty where there is only one
        record Html(String table) implements Form {
            @Override
            public String word() {
                return "html";
            }
        }

        /// Rows that stand in the page itself.
        ///
        /// @param types as they are said of the columns
        /// @param rows each as wide as there are columns; null for what is missing
        record Typed(List<String> columns, List<Type> types, List<List<@Nullable String>> rows) implements Elsewhere {
            public Typed {
                columns = List.copyOf(columns);
                types = List.copyOf(types);
            }

            @Override
            public String word() {
                return "typed";
            }
        }

        /// Lines of text whose fields begin at fixed places.
        ///
        /// @param starts the places, from 1; one place for whole lines
        /// @param pages whether the lines are those of pages, which a form feed parts
        record Places(List<Integer> starts, Pages pages) implements Form {
            public Places {
                starts = List.copyOf(starts);
            }

            public Places(List<Integer> starts) {
                this(starts, Pages.NONE);
            }

            /// Pages give two columns in front: the page, and the line on it.
            public enum Pages {
                /// The file has none.
                NONE,
                /// All lines are rows.
                KEEP_HEADS,
                /// Lines that stand at the head or the foot of nearly every page are no rows.
                LEAVE_OUT_HEADS
            }

            @Override
            public String word() {
                return "places";
            }
        }
    }

    private static final Set<String> OF_SERVERS = Set.of("table", "query", "user", "password_from", "seconds", "keep");

    /// The words for kinds of sources, each with the fields that say how it is read.
    public static final Map<String, Set<String>> FIELDS = Map.ofEntries(
            Map.entry("delimited", Set.of("separator", "quote", "encoding", "heading", "null_words", "bad_rows")),
            Map.entry(
                    "workbook", Set.of("sheet", "block", "cell_errors", "dates", "heading", "null_words", "bad_rows")),
            Map.entry("json", Set.of("rows", "each")),
            Map.entry("parquet", Set.of()),
            Map.entry("sqlite", Set.of("table", "query")),
            Map.entry("duckdb", Set.of("table", "query")),
            Map.entry("places", Set.of("places", "page_heads", "encoding", "heading", "null_words", "bad_rows")),
            Map.entry("postgresql", OF_SERVERS),
            Map.entry("mariadb", OF_SERVERS),
            Map.entry("jdbc", OF_SERVERS),
            Map.entry("web", Set.of("table", "heading", "seconds", "keep")),
            Map.entry("html", Set.of("table", "heading", "null_words", "bad_rows")),
            Map.entry("pdf", Set.of("pages", "table", "heading", "null_words", "bad_rows")),
            Map.entry("typed", Set.of("columns", "values", "missing")));

    /// The words for kinds of sources that a line can read.
    public static final List<String> KINDS = List.of(
            "delimited",
            "workbook",
            "json",
            "parquet",
            "sqlite",
            "duckdb",
            "places",
            "postgresql",
            "mariadb",
            "jdbc",
            "web",
            "pdf",
            "html");

    /// Places whose name says which kind of tables they have.
    private static final Map<String, String> KINDS_OF_PLACES = Map.of(
            "(?is).*\\.sqlite3?", "sqlite",
            "(?is).*\\.duckdb", "duckdb",
            "(?is).*\\.pdf", "pdf",
            "(?is)(?!https?://).*\\.x?html?", "html",
            "(?is)https?://.*", "web",
            "(?is)(jdbc:)?postgres(ql)?://.*", "postgresql",
            "(?is)(jdbc:)?mariadb://.*", "mariadb");

    /// Whether what is typed is no path, but the address of a server or a page.
    public static boolean isAddress(String typed) {
        return typed.strip().matches("(?is)[a-z][a-z0-9+.-]+://.*|jdbc:.*");
    }

    /// The kind of tables that are at an address; empty for one that nothing is read from.
    public static Optional<String> kindOfAddress(String typed) {
        return !isAddress(typed)
                ? Optional.empty()
                : kindOf(typed, "table"::equals).or(() -> Optional.of("jdbc")
                        .filter(_ -> typed.strip().toLowerCase(Locale.ROOT).startsWith("jdbc:")));
    }

    /// The kind of file that fields speak of, where one of them belongs to that kind alone, or where they speak of a
    /// table and the place says of which kind.
    ///
    /// @param path or address
    /// @param isWritten whether a field is there
    public static Optional<String> kindOf(String path, Predicate<String> isWritten) {
        return kindOf(isWritten)
                .or(() -> isWritten.test("table") || isWritten.test("query")
                        ? KINDS_OF_PLACES.entrySet().stream()
                                .filter(e -> path.strip().matches(e.getKey()))
                                .map(Map.Entry::getValue)
                                .findFirst()
                        : Optional.empty());
    }

    private static Optional<String> kindOf(Predicate<String> isWritten) {
        return KINDS.stream()
                .filter(kind -> FIELDS.get(kind).stream().filter(isWritten).anyMatch(f -> FIELDS.entrySet().stream()
                        .allMatch(other ->
                                other.getKey().equals(kind) || !other.getValue().contains(f))))
                .findFirst();
    }

    /// The common encodings, for completion; every other that Java knows can be named too.
    public static final List<String> ENCODINGS =
            List.of("utf-8", "windows-1252", "latin-1", "utf-16", "utf-16le", "utf-16be");

    /// Whether a text can set fields apart.
    public static boolean isSeparator(String text) {
        return text.length() <= 10 && text.chars().noneMatch(c -> c == '\n' || c == '\r' || c == '"');
    }

    /// Whether there is an encoding of that name.
    public static boolean isEncoding(String name) {
        try {
            return name.equals("latin-1") || Charset.isSupported(name);
        } catch (IllegalCharsetNameException e) {
            return false;
        }
    }

    /// The encoding of a name for which [#isEncoding] holds.
    public static Charset charset(String name) {
        return name.equals("latin-1") ? StandardCharsets.ISO_8859_1 : Charset.forName(name);
    }

    /// The encoding of the file.
    public Charset charset() {
        return charset(encoding);
    }

    public ReadOptions {
        nullWords = List.copyOf(nullWords);
    }

    /// Comma, double quotes, UTF-8, a heading, empty means missing.
    public static ReadOptions of(String path) {
        return new ReadOptions(path, ",", "\"", "utf-8", true, List.of(""), false, Optional.empty());
    }

    /// Whether what is read says types of its columns, where they have any.
    public boolean mayDeclare() {
        return form.filter(f -> f instanceof Form.Parquet || f instanceof Form.Database || f instanceof Form.Server)
                .isPresent();
    }

    public ReadOptions withPath(String other) {
        return new ReadOptions(other, separator, quote, encoding, heading, nullWords, leaveOutBadRows, form);
    }

    public ReadOptions withForm(Form other) {
        return new ReadOptions(
                path, separator, quote, encoding, heading, nullWords, leaveOutBadRows, Optional.of(other));
    }

    public ReadOptions withShape(String newSeparator, String newQuote, String newEncoding, boolean newHeading) {
        return new ReadOptions(path, newSeparator, newQuote, newEncoding, newHeading, nullWords, leaveOutBadRows, form);
    }

    public ReadOptions withNullWords(List<String> words) {
        return new ReadOptions(path, separator, quote, encoding, heading, words, leaveOutBadRows, form);
    }

    public ReadOptions withLeaveOutBadRows(boolean leaveOut) {
        return new ReadOptions(path, separator, quote, encoding, heading, nullWords, leaveOut, form);
    }
}
