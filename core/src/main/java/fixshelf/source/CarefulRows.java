package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.engine.RowSink;
import fixshelf.engine.Stop;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.io.Reader;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// The rows of a file read record by record into a table, and those that did not fit.
///
/// @param bad the first rows that were left out, at most [#MOST_LISTED]
/// @param badCount how many there are in all
/// @param errors cells that could not be read and are missing, the first [#MOST_ERRORS] of them
/// @param notes what else is worth saying: the extent of a sheet that was used, cells with errors
public record CarefulRows(List<BadRow> bad, long badCount, List<ErrorCell> errors, List<String> notes) {
    public static final int MOST_LISTED = 100;
    public static final int MOST_ERRORS = 5_000;
    private static final int MOST_OPEN_QUOTES = 50;

    /// A row that does not fit: where it begins, why, and how it begins.
    public record BadRow(int line, String why, String start, Problem problem) {}

    /// A cell that could not be read, and is missing.
    ///
    /// @param row its place among the rows that fit, from 0
    /// @param column its place in the row, from 0
    /// @param words where it is in the source, and what stands there: `E5 #DIV/0!`
    public record ErrorCell(long row, int column, String words) {}

    private static final int MOST_NAMED = 20;

    /// What a run says that stops at rows which do not fit: which they are, and what would let them pass.
    public Problem problem(SourceFile file) {
        Problem first = bad.getFirst().problem();
        String places = bad.stream()
                .limit(MOST_NAMED)
                .map(b -> b.line() + " (" + b.why() + ")")
                .collect(Collectors.joining(", "));
        String more = badCount > MOST_NAMED ? " and " + (badCount - MOST_NAMED) + " more" : "";
        return Problem.about(
                first.code(),
                first.where().source().name(),
                (badCount == 1 ? "One row of " : badCount + " rows of ")
                        + file.file().getFileName() + (badCount == 1 ? " does not fit: line " : " do not fit: lines ")
                        + places + more + ".",
                first.todo() + " Or let the line that reads it leave out bad rows (bad_rows: leave_out).");
    }

    /// Reads `file` record by record and puts what fits into a new table of that name.
    public static Outcome<CarefulRows> read(SourceFile file, DuckSession session, String table) {
        return read(file, session, table, Long.MAX_VALUE);
    }

    /// As above, but no more than the first rows of a file that is no delimited text.
    ///
    /// @param most how many rows are looked at
    public static Outcome<CarefulRows> read(SourceFile file, DuckSession session, String table, long most) {
        if (file.isPattern()) {
            return new FilePattern(file).read(session, table, most);
        }
        TreeSet<Integer> openQuotes = new TreeSet<>();
        try {
            if (!file.isDelimited()) {
                return Outcome.of(records(file, session, table, most));
            }
            while (true) {
                Attempt attempt = new Attempt(file, openQuotes);
                Optional<Integer> open = attempt.fill(session, table);
                if (open.isEmpty()) {
                    return Outcome.of(new CarefulRows(attempt.bad, attempt.badCount, List.of(), List.of()));
                }
                if (openQuotes.size() == MOST_OPEN_QUOTES || !openQuotes.add(open.get())) {
                    return Outcome.failed(SourceFile.problem(file.file(), open.get(), RecordReader.Why.OPEN_QUOTE));
                }
            }
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    file.file().toString(),
                    file.file().getFileName() + " could not be read to its end: " + e.getMessage() + ".",
                    "Look at the file, and at the disk or network that it is on."));
        }
    }

    private static CarefulRows records(SourceFile file, DuckSession session, String table, long most)
            throws IOException {
        create(file, session, table);
        List<BadRow> bad = new ArrayList<>();
        List<ErrorCell> errors = new ArrayList<>();
        long badCount = 0;
        try (Records records = file.records();
                RowSink<String> out = session.appendQueued(table)) {
            long count = 0;
            Optional<Records.Row> row = records.next();
            for (; row.isPresent() && count < most; row = records.next()) {
                Stop.check();
                count++;
                Records.Row now = row.get();
                if (now.wrong().isEmpty()) {
                    long place = count - 1 - badCount;
                    now.errors().stream()
                            .limit(MOST_ERRORS - errors.size())
                            .forEach(e -> errors.add(new ErrorCell(place, e.column(), e.words())));
                    out.add(now.cells());
                    continue;
                }
                badCount++;
                if (bad.size() < MOST_LISTED) {
                    Problem problem = Problem.about(
                            Code.BAD_ROWS,
                            file.file() + ":" + now.line(),
                            "Row " + now.line() + ": " + now.wrong() + ".",
                            "Mend that row, or say which block of cells is read.");
                    bad.add(new BadRow(
                            now.line(), now.wrong(), String.valueOf(now.cells().getFirst()), problem));
                }
            }
            return new CarefulRows(bad, badCount, errors, records.notes(row.isEmpty()));
        }
    }

    static void create(SourceFile file, DuckSession session, String table) {
        String columns = file.columns().stream()
                .map(c -> DuckSession.name(c.name()) + " VARCHAR")
                .collect(Collectors.joining(", "));
        session.run("CREATE OR REPLACE TABLE " + table + " (" + columns + ")");
    }

    /// One pass; lines in `openQuotes` are known to open a quote that never closes, and are left out.
    private static final class Attempt {
        private final SourceFile file;
        private final TreeSet<Integer> openQuotes;
        private final List<BadRow> bad = new ArrayList<>();
        private long badCount;

        Attempt(SourceFile file, TreeSet<Integer> openQuotes) {
            this.file = file;
            this.openQuotes = openQuotes;
        }

        Optional<Integer> fill(DuckSession session, String table) throws IOException {
            create(file, session, table);
            try (RowSink<String> out = session.appendQueued(table)) {
                boolean heading = file.options().heading();
                int from = 1;
                List<Integer> stops = new ArrayList<>(openQuotes);
                stops.add(Integer.MAX_VALUE);
                for (int stop : stops) {
                    Optional<Integer> open = part(out, from, stop, heading && from == 1);
                    if (open.isPresent()) {
                        return open;
                    }
                    if (stop < Integer.MAX_VALUE) {
                        report(stop, RecordReader.Why.OPEN_QUOTE, "");
                    }
                    from = stop == Integer.MAX_VALUE ? stop : stop + 1;
                }
                return Optional.empty();
            }
        }

        private Optional<Integer> part(RowSink<String> out, int from, int stop, boolean heading) throws IOException {
            boolean skip = heading;
            boolean oneColumn = file.columns().size() == 1;
            try (Reader in = SourceFile.reader(file.file(), file.options())) {
                RecordReader records = new RecordReader(
                        in, file.options().separator(), file.options().quote());
                records.skipToLine(from);
                if (oneColumn && !heading) {
                    records.hasOneColumn();
                }
                while (true) {
                    Stop.check();
                    Optional<RecordReader.Item> item = records.next();
                    if (item.isEmpty() || item.get().line() >= stop) {
                        return Optional.empty();
                    }
                    switch (item.get()) {
                        case RecordReader.Item.Broken(int line, RecordReader.Why why, String start) -> {
                            if (why == RecordReader.Why.OPEN_QUOTE) {
                                return Optional.of(line);
                            }
                            report(line, why, start);
                        }
                        case RecordReader.Item.Row(int line, List<RecordReader.Field> fields) -> {
                            if (fields.size() != file.columns().size()) {
                                report(
                                        line,
                                        RecordReader.Why.FIELDS,
                                        fields.getFirst().text());
                            } else if (!skip) {
                                write(out, fields);
                            }
                            if (skip && oneColumn) {
                                records.hasOneColumn();
                            }
                            skip = false;
                        }
                    }
                }
            }
        }

        private void report(int line, RecordReader.Why why, String start) {
            badCount++;
            if (bad.size() < MOST_LISTED) {
                String shown = start.substring(0, Math.min(60, start.length()));
                bad.add(new BadRow(line, why.sentence(), shown, SourceFile.problem(file.file(), line, why)));
            }
        }

        /// A field in quotes is never one of the words that mean missing.
        private void write(RowSink<String> out, List<RecordReader.Field> fields) {
            List<@Nullable String> row = new ArrayList<>(fields.size());
            for (RecordReader.Field field : fields) {
                boolean missing = !field.quoted() && file.options().nullWords().contains(field.text());
                row.add(missing ? null : field.text());
            }
            out.add(row);
        }
    }
}
