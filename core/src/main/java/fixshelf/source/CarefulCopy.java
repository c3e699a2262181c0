package fixshelf.source;

import fixshelf.engine.Stop;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;

/// A clean copy of a file, and the rows that did not fit into it.
///
/// @param bad the first rows that were left out, at most [#MOST_LISTED]
/// @param badCount how many there are in all
/// @param longestLine in bytes, at most
public record CarefulCopy(Path copy, List<BadRow> bad, long badCount, long longestLine) {
    public static final int MOST_LISTED = 100;
    private static final int MOST_OPEN_QUOTES = 50;

    /// A row that does not fit: where it begins, why, and how it begins.
    public record BadRow(int line, String why, String start, Problem problem) {}

    /// Reads `file` record by record and writes what fits to `copy`.
    public static Outcome<CarefulCopy> make(DelimitedFile file, Path copy) {
        TreeSet<Integer> openQuotes = new TreeSet<>();
        try {
            while (true) {
                Attempt attempt = new Attempt(file, openQuotes);
                Optional<Integer> open = attempt.write(copy);
                if (open.isEmpty()) {
                    return Outcome.of(new CarefulCopy(copy, attempt.bad, attempt.badCount, attempt.longest));
                }
                if (openQuotes.size() == MOST_OPEN_QUOTES || !openQuotes.add(open.get())) {
                    return Outcome.failed(DelimitedFile.problem(file.file(), open.get(), RecordReader.Why.OPEN_QUOTE));
                }
            }
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.DISK_FULL,
                    copy.toString(),
                    "A clean copy of " + file.file().getFileName() + " could not be written: " + e.getMessage() + ".",
                    "Make room on the disk."));
        }
    }

    /// One pass; lines in `openQuotes` are known to open a quote that never closes, and are left out.
    private static final class Attempt {
        private final DelimitedFile file;
        private final TreeSet<Integer> openQuotes;
        private final List<BadRow> bad = new ArrayList<>();
        private long badCount;
        private long longest;

        Attempt(DelimitedFile file, TreeSet<Integer> openQuotes) {
            this.file = file;
            this.openQuotes = openQuotes;
        }

        Optional<Integer> write(Path copy) throws IOException {
            try (BufferedWriter out = Files.newBufferedWriter(copy)) {
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

        private Optional<Integer> part(BufferedWriter out, int from, int stop, boolean heading) throws IOException {
            boolean skip = heading;
            try (Reader in = DelimitedFile.reader(file.file(), file.options())) {
                RecordReader records = new RecordReader(
                        in, file.options().separator(), file.options().quote());
                records.skipToLine(from);
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
                bad.add(new BadRow(line, why.sentence(), shown, DelimitedFile.problem(file.file(), line, why)));
            }
        }

        private void write(BufferedWriter out, List<RecordReader.Field> fields) throws IOException {
            long length = 0;
            for (int i = 0; i < fields.size(); i++) {
                String text = fields.get(i).text();
                boolean quote = fields.get(i).quoted()
                        || text.chars().anyMatch(c -> c == ',' || c == '"' || c == '\n' || c == '\r');
                out.write(i == 0 ? "" : ",");
                out.write(quote ? "\"" + text.replace("\"", "\"\"") + "\"" : text);
                length += 3L * text.length() + 4;
            }
            out.write('\n');
            longest = Math.max(longest, length);
        }
    }
}
