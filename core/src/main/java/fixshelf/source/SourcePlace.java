package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// Where a row of a table stands in its source, and how.
///
/// @param shown in words: `line 14 of visits.csv`
/// @param raw the lines as they stand, with quotes and separators; empty where a source has no lines
public record SourcePlace(String shown, String raw) {
    private static final int LONGEST = 4_000;
    private static final Pattern BREAK = Pattern.compile("\\R");

    /// The place of a row.
    ///
    /// @param row its number among the rows that fit, from 0
    public static Outcome<SourcePlace> of(SourceFile file, long row) {
        try {
            Optional<SourcePlace> found = file.copied().isPresent()
                    ? Optional.of(new SourcePlace(
                            String.format(
                                    "row %,d. %s", row + 1, file.copied().get().sentence()),
                            ""))
                    : new Search(row).in(file);
            return found.map(Outcome::of)
                    .orElseGet(() -> Outcome.failed(Problem.about(
                            Code.SOURCE_CHANGED,
                            file.file().toString(),
                            String.format(
                                    "There is no row %,d in %s any more.",
                                    row + 1, file.file().getFileName()),
                            "Look at it again.")));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(SourceFile.unreadable(file.file(), e));
        }
    }

    /// Goes through sources until a row is found.
    private static final class Search {
        private long left;

        Search(long row) {
            this.left = row;
        }

        Optional<SourcePlace> in(SourceFile file) throws IOException {
            if (!file.isPattern()) {
                return file.isDelimited() ? lines(file) : records(file);
            }
            for (Path one : file.files()) {
                Outcome<SourceFile> member = SourceFile.open(one, file.options());
                Optional<SourcePlace> found = member.isPresent() ? in(member.get()) : Optional.empty();
                if (found.isPresent()) {
                    return found;
                }
            }
            return Optional.empty();
        }

        private Optional<SourcePlace> records(SourceFile file) throws IOException {
            try (Records records = file.records()) {
                Optional<Records.Row> row = records.next();
                for (; row.isPresent(); row = records.next()) {
                    if (row.get().wrong().isEmpty() && left-- == 0) {
                        return Optional.of(
                                new SourcePlace(shown(file, records, row.get().line()), ""));
                    }
                }
                return Optional.empty();
            }
        }

        private static String shown(SourceFile file, Records records, int line) {
            String name = file.file().getFileName().toString();
            boolean lines = records instanceof PlaceRecords || records instanceof JsonRecords;
            return records instanceof WorkbookRecords workbook
                    ? "row " + line + " of sheet " + workbook.sheet() + " in " + name
                    : (lines ? "line " : "row ") + line + " of " + name;
        }

        /// A line that opens a quote which never closes is left out, and reading goes on behind it.
        private Optional<SourcePlace> lines(SourceFile file) throws IOException {
            ReadOptions options = file.options();
            boolean heading = options.heading();
            int from = 1;
            while (true) {
                int next = from;
                try (Reader in = SourceFile.reader(file.file(), options)) {
                    RecordReader records = new RecordReader(in, options.separator(), options.quote());
                    records.skipToLine(from);
                    boolean oneColumn = file.columns().size() == 1;
                    if (oneColumn && !heading) {
                        records.hasOneColumn();
                    }
                    for (Optional<RecordReader.Item> item = records.next(); item.isPresent(); item = records.next()) {
                        if (item.get() instanceof RecordReader.Item.Broken(int line, var why, String _)
                                && why == RecordReader.Why.OPEN_QUOTE) {
                            next = line + 1;
                            break;
                        }
                        if (!(item.get() instanceof RecordReader.Item.Row(int line, var fields))
                                || fields.size() != file.columns().size()) {
                            continue;
                        }
                        if (heading) {
                            heading = false;
                            if (oneColumn) {
                                records.hasOneColumn();
                            }
                        } else if (left-- == 0) {
                            return Optional.of(new SourcePlace(
                                    "line " + line + " of " + file.file().getFileName(), raw(file, line, fields)));
                        }
                    }
                }
                if (next == from) {
                    return Optional.empty();
                }
                from = next;
            }
        }

        private static String raw(SourceFile file, int line, List<RecordReader.Field> fields) throws IOException {
            long breaks = fields.stream()
                    .mapToLong(f -> BREAK.matcher(f.text()).results().count())
                    .sum();
            try (BufferedReader in = new BufferedReader(SourceFile.reader(file.file(), file.options()))) {
                String text = in.lines().skip(line - 1L).limit(breaks + 1).collect(Collectors.joining("\n"));
                String bare = text.startsWith("\uFEFF") ? text.substring(1) : text;
                return bare.length() > LONGEST ? bare.substring(0, LONGEST) + "…" : bare;
            }
        }
    }
}
