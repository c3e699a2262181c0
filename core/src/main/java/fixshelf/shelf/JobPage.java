package fixshelf.shelf;

import fixshelf.plan.Line;
import fixshelf.plan.Planner;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// A job as its page says it.
///
/// @param result the line, by its name or number, whose table is the result of the job; empty for the last
/// @param parameters names with their defaults, for `{name}` in paths and for arguments
public record JobPage(
        Path file,
        SourceText source,
        String name,
        String title,
        String about,
        Map<String, String> parameters,
        List<PlacedLine> lines,
        List<Output> outputs,
        String result,
        List<Problem> problems) {

    /// A line with its place in the page and, if the author gives one, the reason for it.
    ///
    /// @param blanks where what is written in its blanks stands
    public record PlacedLine(Line line, String reason, Span span, Map<String, Span> blanks) {
        public PlacedLine(Line line, String reason, Span span) {
            this(line, reason, span, Map.of());
        }

        /// With the places in a page that problems name.
        public Planner.PlacedLine in(SourceText page) {
            Map<String, Problem.Where> places = new HashMap<>();
            blanks.forEach((name, at) -> places.put(name, new Problem.Where(page, at)));
            return new Planner.PlacedLine(line, new Problem.Where(page, span), places);
        }
    }

    /// Where the result goes; the ending of its name says as what.
    ///
    /// @param replace whether a file that is there already may be replaced
    /// @param of what is written, where it is not the result of the job: the table of a line, or a report of it
    /// @param table the table of a database that is written, where it is one
    /// @param sheet the sheet of a workbook that is written, where it is one
    /// @param text how delimited text is written, where it is that
    /// @param language in which a definition is written, where it is one; empty for that of the engine inside
    public record Output(
            String path,
            boolean replace,
            Span span,
            Optional<OfReport> of,
            Optional<ToTable> table,
            InSheet sheet,
            String language,
            DelimitedText text) {
        public Output(String path, boolean replace, Span span) {
            this(path, replace, span, Optional.empty(), Optional.empty(), InSheet.USUAL, "", DelimitedText.USUAL);
        }

        /// The same in another place: what a sheet, a view or a table is called goes with the kind of file.
        public Output at(String other) {
            return new Output(
                    other,
                    replace && !isDatabase(other),
                    span,
                    of,
                    isDatabase(other) ? table : Optional.empty(),
                    isWorkbook(other) ? sheet : InSheet.USUAL,
                    isDefinition(other) ? language : "",
                    isText(other) ? text : DelimitedText.USUAL);
        }

        public Output replacing(boolean now) {
            return new Output(path, now, span, of, table, sheet, language, text);
        }

        public Output into(ToTable now) {
            return new Output(path, replace, span, of, Optional.of(now), sheet, language, text);
        }

        public Output in(InSheet now) {
            return new Output(path, replace, span, of, table, now, language, text);
        }

        public Output as(String now) {
            return new Output(path, replace, span, of, table, sheet, now, text);
        }

        /// @param now what is written; empty for the result of the job
        public Output holding(Optional<OfReport> now) {
            return new Output(path, replace, span, now, table, sheet, language, text);
        }

        public Output told(DelimitedText now) {
            return new Output(path, replace, span, of, table, sheet, language, now);
        }

        public boolean isText() {
            return table.isEmpty() && isText(path);
        }

        public boolean isWorkbook() {
            return isWorkbook(path);
        }

        public boolean isDefinition() {
            return isDefinition(path);
        }

        /// Whether the rows go into a table of a database, which is a file or a server.
        public static boolean isDatabase(String path) {
            return isServer(path) || path.toLowerCase(Locale.ROOT).matches(".*\\.(sqlite3?|db|duckdb)");
        }

        public static boolean isServer(String path) {
            return path.matches("(postgresql|mariadb)://.*");
        }

        static boolean isText(String path) {
            return path.toLowerCase(Locale.ROOT).matches(".*\\.(csv|txt|tsv)");
        }

        static boolean isWorkbook(String path) {
            return path.toLowerCase(Locale.ROOT).endsWith(".xlsx");
        }

        static boolean isDefinition(String path) {
            return path.toLowerCase(Locale.ROOT).endsWith(".sql");
        }
    }

    /// How rows stand in a workbook.
    ///
    /// @param name of the sheet; empty for the name of the file
    /// @param asText whether numbers and days that a workbook cannot hold are written as texts,
    /// instead of stopping the run
    public record InSheet(String name, boolean asText) {
        public static final InSheet USUAL = new InSheet("", false);
    }

    /// A table of a database that takes the rows.
    ///
    /// @param mode `create`, `replace` or `append`
    /// @param user whose rights are used; empty for what the driver takes
    /// @param passwordFrom the variable of the system that holds the password; empty for none
    public record ToTable(String table, String mode, String user, String passwordFrom) {
        /// A table that is made, by the usual user.
        public static ToTable called(String table) {
            return new ToTable(table, "create", "", "");
        }
    }

    /// The table of a line, by its name or number; or one of its reports, where `report` is not empty.
    public record OfReport(String line, String report) {}

    /// Whether a word names a line: by its name, or its number, counted from 1.
    public static boolean isNamed(Line line, int number, String word) {
        return line.name().equals(word) || String.valueOf(number).equals(word);
    }

    public Optional<Line> firstLine() {
        return lines.stream().findFirst().map(PlacedLine::line);
    }
}
